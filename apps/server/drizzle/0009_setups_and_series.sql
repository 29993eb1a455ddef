CREATE TABLE "series" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"title" text NOT NULL,
	"setup" jsonb NOT NULL,
	"printer_id" text NOT NULL,
	"state" text DEFAULT 'draft' NOT NULL,
	"message" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"started_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "series_rows" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"series_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"name" text NOT NULL,
	"job_id" uuid,
	"trouble" text,
	"skipped" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "setups" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"ticket" jsonb NOT NULL,
	"printer_id" text,
	"starts" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "deliveries" ADD COLUMN "series_id" uuid;--> statement-breakpoint
ALTER TABLE "series" ADD CONSTRAINT "series_printer_id_printers_id_fk" FOREIGN KEY ("printer_id") REFERENCES "public"."printers"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "series_rows" ADD CONSTRAINT "series_rows_series_id_series_id_fk" FOREIGN KEY ("series_id") REFERENCES "public"."series"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "series_rows" ADD CONSTRAINT "series_rows_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_printer_id_printers_id_fk" FOREIGN KEY ("printer_id") REFERENCES "public"."printers"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "series_rows_series" ON "series_rows" USING btree ("series_id","place");--> statement-breakpoint
CREATE INDEX "series_rows_job" ON "series_rows" USING btree ("job_id");--> statement-breakpoint
CREATE UNIQUE INDEX "setups_name" ON "setups" USING btree (lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "setups_house" ON "setups" USING btree ("starts") WHERE "setups"."starts" = 'house';--> statement-breakpoint
CREATE UNIQUE INDEX "setups_printer" ON "setups" USING btree ("printer_id") WHERE "setups"."starts" = 'printer';--> statement-breakpoint
ALTER TABLE "deliveries" ADD CONSTRAINT "deliveries_series_id_series_id_fk" FOREIGN KEY ("series_id") REFERENCES "public"."series"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "deliveries_series" ON "deliveries" USING btree ("series_id");