CREATE TABLE `job_summaries` (
	`job_number` integer PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`symptom` text NOT NULL,
	`swollen` integer NOT NULL,
	`outcome` text,
	`last_at` text NOT NULL,
	`soak` text,
	`replaces` integer NOT NULL,
	`step` text,
	`step_basis` text,
	FOREIGN KEY (`job_number`) REFERENCES `jobs`(`number`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `job_summaries_outcome` ON `job_summaries` (`outcome`);--> statement-breakpoint
ALTER TABLE `references` ADD `import_key` text;