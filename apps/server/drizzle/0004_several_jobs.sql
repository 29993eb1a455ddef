ALTER TABLE "deliveries" ADD COLUMN "printer_jobs" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "parts" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "reason" text;--> statement-breakpoint
UPDATE "deliveries" SET "printer_jobs" = jsonb_build_array("printer_job_id") WHERE "printer_job_id" IS NOT NULL;
