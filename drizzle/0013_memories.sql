CREATE TABLE `memories` (
	`person` text NOT NULL,
	`fact` text NOT NULL,
	`json` text NOT NULL,
	PRIMARY KEY(`person`, `fact`)
);
