CREATE TABLE `long_texts` (
	`sha256` text PRIMARY KEY NOT NULL,
	`text` text NOT NULL
);
