ALTER TABLE "documents" ADD COLUMN "uses" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
CREATE INDEX "documents_by_use" ON "documents" USING gin ("uses");