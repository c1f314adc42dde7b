CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`revision` integer NOT NULL,
	`document` text NOT NULL,
	`updated_at` text NOT NULL,
	`client` text NOT NULL,
	`state` text NOT NULL,
	`next` text NOT NULL,
	`due_on` text,
	`archived` integer NOT NULL,
	`shots` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `jobs_by_due` ON `jobs` (`archived`,`due_on`,`updated_at`);--> statement-breakpoint
CREATE TABLE `pictures` (
	`sha256` text PRIMARY KEY NOT NULL,
	`media_type` text NOT NULL,
	`width_px` integer NOT NULL,
	`height_px` integer NOT NULL,
	`bytes` integer NOT NULL
);
