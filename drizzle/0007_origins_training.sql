ALTER TABLE `job_events` ADD `origin` text;--> statement-breakpoint
ALTER TABLE `jobs` ADD `training` integer DEFAULT false NOT NULL;