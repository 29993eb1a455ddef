CREATE TABLE "spent" (
	"id" uuid PRIMARY KEY NOT NULL,
	"day" date NOT NULL,
	"printer_id" text NOT NULL,
	"printer_name" text NOT NULL,
	"job_id" uuid,
	"title" text NOT NULL,
	"setup_id" uuid,
	"setup_name" text,
	"kind" text NOT NULL,
	"sheets" integer NOT NULL,
	"two_sided_sheets" integer NOT NULL,
	"sides" integer NOT NULL,
	"color_sides" integer NOT NULL,
	"gray_sides" integer NOT NULL,
	"paper" numeric(14, 4) NOT NULL,
	"printing" numeric(14, 4) NOT NULL,
	"gray" numeric(14, 4) NOT NULL,
	"saved_sheets" integer NOT NULL,
	"saved" numeric(14, 4) NOT NULL,
	"again" text,
	"again_said" text,
	"cheaper_way" text,
	"cheaper_saves" numeric(14, 4) NOT NULL,
	"cheaper_text" numeric(8, 3)
);
--> statement-breakpoint
CREATE TABLE "spent_papers" (
	"id" uuid NOT NULL,
	"day" date NOT NULL,
	"printer_id" text NOT NULL,
	"size" text NOT NULL,
	"type" text NOT NULL,
	"sheets" integer NOT NULL,
	"cost" numeric(14, 4) NOT NULL,
	CONSTRAINT "spent_papers_id_size_type_pk" PRIMARY KEY("id","size","type")
);
--> statement-breakpoint
ALTER TABLE "sendings" ADD COLUMN "again_of" uuid;--> statement-breakpoint
ALTER TABLE "spent_papers" ADD CONSTRAINT "spent_papers_id_spent_id_fk" FOREIGN KEY ("id") REFERENCES "public"."spent"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "spent_day" ON "spent" USING btree ("day");--> statement-breakpoint
CREATE INDEX "spent_title" ON "spent" USING btree ("title","day");--> statement-breakpoint
CREATE INDEX "spent_papers_day" ON "spent_papers" USING btree ("day");--> statement-breakpoint
ALTER TABLE "sendings" ADD CONSTRAINT "sendings_again_of_sendings_id_fk" FOREIGN KEY ("again_of") REFERENCES "public"."sendings"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER tell AFTER INSERT OR UPDATE ON spent FOR EACH ROW EXECUTE FUNCTION foglio_tell('spend', 'id');
