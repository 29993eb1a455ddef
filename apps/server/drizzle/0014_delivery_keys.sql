ALTER TABLE "deliveries" ADD COLUMN "key" text;--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_key_unique" UNIQUE("key");