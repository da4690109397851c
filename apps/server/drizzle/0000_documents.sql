CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE TABLE "documents" (
	"id" text PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"step" integer DEFAULT 0 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"deleted_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "snapshots" (
	"document" text NOT NULL,
	"step" integer NOT NULL,
	"content" "bytea" NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "snapshots_document_step_pk" PRIMARY KEY("document","step")
);
--> statement-breakpoint
CREATE TABLE "steps" (
	"document" text NOT NULL,
	"step" integer NOT NULL,
	"transaction" text NOT NULL,
	"label" text NOT NULL,
	"gesture" text,
	"changes" jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "steps_document_step_pk" PRIMARY KEY("document","step"),
	CONSTRAINT "steps_once" UNIQUE("document","transaction")
);
--> statement-breakpoint
CREATE TABLE "thumbnails" (
	"document" text PRIMARY KEY NOT NULL,
	"step" integer NOT NULL,
	"png" "bytea" NOT NULL
);
--> statement-breakpoint
ALTER TABLE "snapshots" ADD CONSTRAINT "snapshots_document_documents_id_fk" FOREIGN KEY ("document") REFERENCES "public"."documents"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "steps" ADD CONSTRAINT "steps_document_documents_id_fk" FOREIGN KEY ("document") REFERENCES "public"."documents"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "thumbnails" ADD CONSTRAINT "thumbnails_document_documents_id_fk" FOREIGN KEY ("document") REFERENCES "public"."documents"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "documents_listed" ON "documents" USING btree ("kind","updated_at" DESC NULLS LAST,"id") WHERE "documents"."deleted_at" is null;--> statement-breakpoint
CREATE INDEX "documents_by_part_of_name" ON "documents" USING gin ("name" gin_trgm_ops);