CREATE TABLE "incoming" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "incoming_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"setup_id" uuid,
	"queue" text NOT NULL,
	"name" text NOT NULL,
	"user_name" text NOT NULL,
	"wishes" jsonb NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"message" text,
	"remarks" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"files" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"job_id" uuid,
	"sending_id" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "sendings" ADD COLUMN "sides" integer;--> statement-breakpoint
ALTER TABLE "setups" ADD COLUMN "queue" text;--> statement-breakpoint
ALTER TABLE "incoming" ADD CONSTRAINT "incoming_setup_id_setups_id_fk" FOREIGN KEY ("setup_id") REFERENCES "public"."setups"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "incoming" ADD CONSTRAINT "incoming_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "incoming" ADD CONSTRAINT "incoming_sending_id_sendings_id_fk" FOREIGN KEY ("sending_id") REFERENCES "public"."sendings"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "incoming_queue" ON "incoming" USING btree ("queue","id");--> statement-breakpoint
CREATE INDEX "incoming_job" ON "incoming" USING btree ("job_id");--> statement-breakpoint
ALTER TABLE "setups" ADD CONSTRAINT "setups_queue_unique" UNIQUE("queue");--> statement-breakpoint
CREATE TRIGGER tell AFTER INSERT OR UPDATE OR DELETE ON incoming FOR EACH ROW EXECUTE FUNCTION foglio_tell('incoming', 'id');
--> statement-breakpoint
CREATE TRIGGER tell AFTER INSERT OR UPDATE OR DELETE ON setups FOR EACH ROW EXECUTE FUNCTION foglio_tell('setup', 'id');
