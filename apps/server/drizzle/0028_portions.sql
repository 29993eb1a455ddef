ALTER TABLE "sendings" ADD COLUMN "portion" jsonb;--> statement-breakpoint
ALTER TABLE "sendings" ADD COLUMN "part_of" uuid;--> statement-breakpoint
ALTER TABLE "sendings" ADD CONSTRAINT "sendings_part_of_sendings_id_fk" FOREIGN KEY ("part_of") REFERENCES "public"."sendings"("id") ON DELETE set null ON UPDATE no action;