ALTER TABLE "deliveries" ADD COLUMN "attempts" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "retry_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "printers" ADD COLUMN "papers" jsonb DEFAULT '{}'::jsonb NOT NULL;