CREATE TABLE `log_entries` (
	`id` text PRIMARY KEY NOT NULL,
	`kept` integer DEFAULT true NOT NULL,
	`at` text NOT NULL,
	`job` text NOT NULL,
	`job_name` text NOT NULL,
	`client` text NOT NULL,
	`shot` text NOT NULL,
	`shot_name` text NOT NULL,
	`products` text NOT NULL,
	`lights` text NOT NULL,
	`look` text NOT NULL,
	`tone` text NOT NULL,
	`words` text NOT NULL,
	`begun_at` text,
	`minutes` real,
	`planned_minutes` real NOT NULL,
	`tries` integer NOT NULL,
	`verdicts` text,
	`measured` text,
	`note` text DEFAULT '' NOT NULL,
	`retouch_minutes` real,
	`set_id` text NOT NULL,
	`set_name` text NOT NULL,
	`set_revision` integer NOT NULL,
	`document` text NOT NULL
);
--> statement-breakpoint
CREATE INDEX `log_by_time` ON `log_entries` (`kept`,`at`);--> statement-breakpoint
CREATE INDEX `log_by_job` ON `log_entries` (`job`,`at`);