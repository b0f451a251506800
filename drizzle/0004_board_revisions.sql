CREATE TABLE `board_revisions` (
	`board_id` text NOT NULL,
	`revision` integer NOT NULL,
	`json` text NOT NULL,
	`added_at` text NOT NULL,
	PRIMARY KEY(`board_id`, `revision`),
	FOREIGN KEY (`board_id`) REFERENCES `boards`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `entries` (
	`key` text PRIMARY KEY NOT NULL,
	`scope` text NOT NULL,
	`request` text NOT NULL,
	`answer` text NOT NULL,
	`at` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `boards` ADD `revision` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `boards` ADD `retired_at` text;--> statement-breakpoint
ALTER TABLE `jobs` ADD `board_revision` integer DEFAULT 1 NOT NULL;--> statement-breakpoint
INSERT INTO `board_revisions` (`board_id`, `revision`, `json`, `added_at`) SELECT `id`, 1, `json`, `added_at` FROM `boards`;
