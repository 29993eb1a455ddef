ALTER TABLE "series" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "series" ADD COLUMN "key" text;--> statement-breakpoint
ALTER TABLE "setups" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "series" ADD CONSTRAINT "series_key_unique" UNIQUE("key");