DROP INDEX "assets_listed";--> statement-breakpoint
ALTER TABLE "assets" ADD COLUMN "tags" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "assets" ADD COLUMN "updated_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "assets" ADD COLUMN "deleted_at" timestamp with time zone;--> statement-breakpoint
CREATE INDEX "assets_by_tag" ON "assets" USING gin ("tags");--> statement-breakpoint
CREATE INDEX "assets_listed" ON "assets" USING btree ("updated_at" DESC NULLS LAST,"sha256") WHERE "assets"."deleted_at" is null;