CREATE TABLE "past_sendings" (
	"printer_id" text NOT NULL,
	"month" date NOT NULL,
	"sendings" integer NOT NULL,
	"sheets" bigint NOT NULL,
	CONSTRAINT "past_sendings_printer_id_month_pk" PRIMARY KEY("printer_id","month")
);
--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "left_since" timestamp with time zone;--> statement-breakpoint
CREATE INDEX "files_content" ON "files" USING btree ("content_id");