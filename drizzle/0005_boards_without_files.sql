ALTER TABLE `boards` DROP COLUMN `json`;--> statement-breakpoint
ALTER TABLE `boards` DROP COLUMN `added_at`;