-- One word for one sending of a job; a delivery is the order of its sheets.
ALTER TABLE "deliveries" RENAME TO "sendings";--> statement-breakpoint
ALTER TABLE "sendings" RENAME CONSTRAINT "deliveries_pkey" TO "sendings_pkey";--> statement-breakpoint
ALTER TABLE "sendings" RENAME CONSTRAINT "deliveries_key_unique" TO "sendings_key_unique";--> statement-breakpoint
ALTER TABLE "sendings" RENAME CONSTRAINT "deliveries_pass_key_unique" TO "sendings_pass_key_unique";--> statement-breakpoint
ALTER TABLE "sendings" RENAME CONSTRAINT "deliveries_job_id_jobs_id_fk" TO "sendings_job_id_jobs_id_fk";--> statement-breakpoint
ALTER TABLE "sendings" RENAME CONSTRAINT "deliveries_printer_id_printers_id_fk" TO "sendings_printer_id_printers_id_fk";--> statement-breakpoint
ALTER TABLE "sendings" RENAME CONSTRAINT "deliveries_series_id_series_id_fk" TO "sendings_series_id_series_id_fk";--> statement-breakpoint
ALTER INDEX "deliveries_state" RENAME TO "sendings_state";--> statement-breakpoint
ALTER INDEX "deliveries_series" RENAME TO "sendings_series";--> statement-breakpoint
DROP TRIGGER tell ON "sendings";--> statement-breakpoint
CREATE TRIGGER tell AFTER INSERT OR UPDATE ON "sendings" FOR EACH ROW EXECUTE FUNCTION foglio_tell('sending', 'id');
