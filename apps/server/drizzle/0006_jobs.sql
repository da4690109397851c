CREATE TABLE "jobs" (
	"id" text PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"title" text NOT NULL,
	"wish" jsonb NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"progress" real DEFAULT 0 NOT NULL,
	"message" text,
	"asset" text,
	"attempts" integer DEFAULT 0 NOT NULL,
	"worker" integer,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "workers" (
	"id" serial PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE INDEX "jobs_listed" ON "jobs" USING btree ("created_at" DESC NULLS LAST,"id");--> statement-breakpoint
CREATE INDEX "jobs_under_way" ON "jobs" USING btree ("worker") WHERE "jobs"."state" = 'running';