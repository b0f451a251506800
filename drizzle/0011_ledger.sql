CREATE TABLE `ledger_jobs` (
	`job_number` integer NOT NULL,
	`closing` integer NOT NULL,
	`version` integer NOT NULL,
	`form` integer NOT NULL,
	`board_id` text NOT NULL,
	`closed_at` text NOT NULL,
	`outcome` text NOT NULL,
	`is_comeback` integer NOT NULL,
	`days_good` real,
	`cause` text NOT NULL,
	`person` text NOT NULL,
	`source` text,
	`minutes` real NOT NULL,
	`price` real,
	`quoted` real,
	`success_told` real,
	`promised_at` text,
	PRIMARY KEY(`job_number`, `closing`),
	FOREIGN KEY (`job_number`) REFERENCES `jobs`(`number`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `ledger_jobs_board` ON `ledger_jobs` (`board_id`,`closed_at`);--> statement-breakpoint
CREATE INDEX `ledger_jobs_closed` ON `ledger_jobs` (`closed_at`);--> statement-breakpoint
CREATE TABLE `ledger_readings` (
	`id` integer PRIMARY KEY NOT NULL,
	`job_number` integer NOT NULL,
	`closing` integer NOT NULL,
	`board_id` text NOT NULL,
	`point` text NOT NULL,
	`name` text NOT NULL,
	`value` real,
	`is_open` integer NOT NULL,
	`words` text NOT NULL,
	`phase` text NOT NULL,
	`cause` text NOT NULL,
	FOREIGN KEY (`job_number`) REFERENCES `jobs`(`number`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `ledger_readings_point` ON `ledger_readings` (`board_id`,`point`);--> statement-breakpoint
CREATE INDEX `ledger_readings_job` ON `ledger_readings` (`job_number`);