CREATE TABLE `calibrations` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`key` text NOT NULL,
	`station_id` text NOT NULL,
	`at` text NOT NULL,
	`json` text NOT NULL,
	FOREIGN KEY (`station_id`) REFERENCES `stations`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `calibrations_key` ON `calibrations` (`key`);--> statement-breakpoint
CREATE INDEX `calibrations_station` ON `calibrations` (`station_id`);