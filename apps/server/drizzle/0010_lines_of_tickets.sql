-- Tickets have lines since; those kept before have none.
UPDATE "jobs" SET "ticket" = "ticket" || '{"lines": []}' WHERE NOT "ticket" ? 'lines';--> statement-breakpoint
UPDATE "deliveries" SET "ticket" = "ticket" || '{"lines": []}' WHERE NOT "ticket" ? 'lines';--> statement-breakpoint
UPDATE "setups" SET "ticket" = "ticket" || '{"lines": []}' WHERE NOT "ticket" ? 'lines';--> statement-breakpoint
UPDATE "series" SET "setup" = "setup" || '{"lines": []}' WHERE NOT "setup" ? 'lines';
