ALTER TABLE "deliveries" ADD COLUMN "earlier_jobs" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "pass" integer;--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "handling" text;