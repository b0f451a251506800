CREATE TABLE `boards` (
	`id` text PRIMARY KEY NOT NULL,
	`json` text NOT NULL,
	`added_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `image_families` (
	`id` text PRIMARY KEY NOT NULL,
	`json` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `images` (
	`sha256` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`family_id` text,
	`size_bytes` integer NOT NULL,
	`bytes` blob NOT NULL,
	`added_at` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `job_events` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job_number` integer NOT NULL,
	`seq` integer NOT NULL,
	`key` text NOT NULL,
	`at` text NOT NULL,
	`bench` text NOT NULL,
	`actor` text NOT NULL,
	`replaces` integer,
	`body` text NOT NULL,
	FOREIGN KEY (`job_number`) REFERENCES `jobs`(`number`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `job_events_seq` ON `job_events` (`job_number`,`seq`);--> statement-breakpoint
CREATE UNIQUE INDEX `job_events_key` ON `job_events` (`key`);--> statement-breakpoint
CREATE INDEX `job_events_job` ON `job_events` (`job_number`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`number` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`board_id` text NOT NULL,
	`opened_at` text NOT NULL,
	FOREIGN KEY (`board_id`) REFERENCES `boards`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `stations` (
	`id` text PRIMARY KEY NOT NULL,
	`json` text NOT NULL
);
