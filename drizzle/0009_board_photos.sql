CREATE TABLE `board_photos` (
	`board_id` text NOT NULL,
	`side` text NOT NULL,
	`sha256` text NOT NULL,
	`place` text NOT NULL,
	`added_at` text NOT NULL,
	PRIMARY KEY(`board_id`, `side`),
	FOREIGN KEY (`board_id`) REFERENCES `boards`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`sha256`) REFERENCES `images`(`sha256`) ON UPDATE no action ON DELETE no action
);
