CREATE TABLE "uploads" (
	"storage" text PRIMARY KEY NOT NULL,
	"sender" text NOT NULL,
	"sha256" text NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "uploads_once" UNIQUE("sender","sha256")
);
--> statement-breakpoint
DELETE FROM "assets" WHERE NOT "complete";--> statement-breakpoint
ALTER TABLE "asset_chunks" DROP CONSTRAINT "asset_chunks_asset_assets_sha256_fk";--> statement-breakpoint
ALTER TABLE "asset_chunks" RENAME COLUMN "asset" TO "storage";--> statement-breakpoint
ALTER TABLE "asset_chunks" RENAME CONSTRAINT "asset_chunks_asset_number_pk" TO "asset_chunks_storage_number_pk";--> statement-breakpoint
ALTER TABLE "assets" ADD COLUMN "storage" text;--> statement-breakpoint
UPDATE "assets" SET "storage" = "sha256";--> statement-breakpoint
ALTER TABLE "assets" ALTER COLUMN "storage" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "assets" DROP COLUMN "complete";--> statement-breakpoint
CREATE FUNCTION brelvin_sought("name" text, "tags" text[]) RETURNS text[] LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT array(
		SELECT DISTINCT substr(word, place, size)
		FROM (SELECT lower("name") AS word UNION ALL SELECT lower(tag) FROM unnest("tags") AS tag) AS words,
			generate_series(1, length(word)) AS place,
			generate_series(1, 2) AS size
	)
$$;--> statement-breakpoint
ALTER TABLE "assets" ADD COLUMN "sought" text[] GENERATED ALWAYS AS (brelvin_sought(name, tags)) STORED;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "sought" text[] GENERATED ALWAYS AS (brelvin_sought(name, tags)) STORED;--> statement-breakpoint
CREATE INDEX "uploads_by_age" ON "uploads" USING btree ("created_at");--> statement-breakpoint
CREATE INDEX "assets_sought" ON "assets" USING gin ("sought");--> statement-breakpoint
DROP INDEX "documents_by_part_of_name";--> statement-breakpoint
CREATE INDEX "documents_sought" ON "documents" USING gin ("sought");
