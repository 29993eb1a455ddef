ALTER TABLE "contents" ALTER COLUMN "outline" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "contents" ALTER COLUMN "outline" DROP NOT NULL;