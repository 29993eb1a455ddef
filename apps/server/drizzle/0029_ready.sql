ALTER TABLE "printers" ADD COLUMN "pace" real DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "sendings" ADD COLUMN "tally" jsonb;--> statement-breakpoint
ALTER TABLE "sendings" ADD COLUMN "printing_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "sendings" ADD COLUMN "ended_at" timestamp with time zone;--> statement-breakpoint
CREATE INDEX "sendings_ended" ON "sendings" USING btree ("printer_id","ended_at");