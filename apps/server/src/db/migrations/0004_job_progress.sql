ALTER TABLE `jobs` ADD `picture` text;--> statement-breakpoint
ALTER TABLE `jobs` ADD `waiting` integer DEFAULT 0 NOT NULL;