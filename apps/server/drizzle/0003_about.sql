ALTER TABLE "contents" ADD COLUMN "about" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "contents" ADD COLUMN "remarks" jsonb DEFAULT '[]'::jsonb NOT NULL;