CREATE TABLE `drills` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` text NOT NULL,
	`person` text NOT NULL,
	`spec` text NOT NULL,
	`par_minutes` real NOT NULL,
	`steps` text NOT NULL,
	`end` text,
	`score` real,
	`regret_minutes` real
);
--> statement-breakpoint
CREATE INDEX `drills_person` ON `drills` (`person`);