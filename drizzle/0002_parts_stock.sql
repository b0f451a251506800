CREATE TABLE `evidence` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`type_id` text NOT NULL,
	`board_id` text NOT NULL,
	`json` text NOT NULL,
	`added_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `evidence_key` ON `evidence` (`key`);--> statement-breakpoint
CREATE INDEX `evidence_board` ON `evidence` (`board_id`);--> statement-breakpoint
CREATE TABLE `part_families` (
	`id` text PRIMARY KEY NOT NULL,
	`json` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `part_types` (
	`id` text PRIMARY KEY NOT NULL,
	`json` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `stock_events` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`at` text NOT NULL,
	`bench` text NOT NULL,
	`actor` text NOT NULL,
	`body` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `stock_events_key` ON `stock_events` (`key`);