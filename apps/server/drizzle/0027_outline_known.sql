UPDATE "contents" SET "outline" = '[]'::jsonb WHERE "outline" IS NULL;--> statement-breakpoint
ALTER TABLE "contents" ALTER COLUMN "outline" SET DEFAULT '[]'::jsonb;--> statement-breakpoint
ALTER TABLE "contents" ALTER COLUMN "outline" SET NOT NULL;