CREATE TABLE "asset_chunks" (
	"asset" text NOT NULL,
	"number" integer NOT NULL,
	"content" "bytea" NOT NULL,
	CONSTRAINT "asset_chunks_asset_number_pk" PRIMARY KEY("asset","number")
);
--> statement-breakpoint
CREATE TABLE "assets" (
	"sha256" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"width" integer DEFAULT 0 NOT NULL,
	"height" integer DEFAULT 0 NOT NULL,
	"complete" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "versions" (
	"document" text NOT NULL,
	"name" text NOT NULL,
	"step" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "versions_document_name_pk" PRIMARY KEY("document","name")
);
--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "tags" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "steps" ADD COLUMN "direction" text;--> statement-breakpoint
ALTER TABLE "asset_chunks" ADD CONSTRAINT "asset_chunks_asset_assets_sha256_fk" FOREIGN KEY ("asset") REFERENCES "public"."assets"("sha256") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "versions" ADD CONSTRAINT "versions_document_documents_id_fk" FOREIGN KEY ("document") REFERENCES "public"."documents"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "assets_listed" ON "assets" USING btree ("created_at" DESC NULLS LAST,"sha256");--> statement-breakpoint
CREATE INDEX "documents_by_name" ON "documents" USING btree ("kind","name","id") WHERE "documents"."deleted_at" is null;--> statement-breakpoint
CREATE INDEX "documents_by_tag" ON "documents" USING gin ("tags");