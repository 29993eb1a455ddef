ALTER TABLE "sendings" ADD COLUMN "turn_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
UPDATE "sendings" SET "turn_at" = "created_at";
