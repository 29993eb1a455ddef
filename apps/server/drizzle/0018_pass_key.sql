ALTER TABLE "deliveries" ADD COLUMN "pass_key" text;--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_pass_key_unique" UNIQUE("pass_key");