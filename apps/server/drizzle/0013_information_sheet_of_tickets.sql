-- Tickets may ask for an information sheet since; those kept before ask for none.
UPDATE "jobs" SET "ticket" = "ticket" || '{"informationSheet": {"print": false, "by": "", "tray": null}}' WHERE NOT "ticket" ? 'informationSheet';--> statement-breakpoint
UPDATE "deliveries" SET "ticket" = "ticket" || '{"informationSheet": {"print": false, "by": "", "tray": null}}' WHERE NOT "ticket" ? 'informationSheet';--> statement-breakpoint
UPDATE "setups" SET "ticket" = "ticket" || '{"informationSheet": {"print": false, "by": "", "tray": null}}' WHERE NOT "ticket" ? 'informationSheet';--> statement-breakpoint
UPDATE "series" SET "setup" = "setup" || '{"informationSheet": {"print": false, "by": "", "tray": null}}' WHERE NOT "setup" ? 'informationSheet';
