CREATE TABLE "settings" (
	"name" text PRIMARY KEY NOT NULL,
	"value" jsonb NOT NULL
);
