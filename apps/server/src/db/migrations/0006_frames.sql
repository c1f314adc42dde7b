CREATE TABLE `frames` (
	`id` text PRIMARY KEY NOT NULL,
	`sha256` text NOT NULL,
	`name` text NOT NULL,
	`bytes` integer NOT NULL,
	`written_ms` integer NOT NULL,
	`width_px` integer NOT NULL,
	`height_px` integer NOT NULL,
	`arrived_at` text NOT NULL,
	`taken_at` text,
	`live` integer NOT NULL,
	`exposure_s` real,
	`f_number` real,
	`iso` real,
	`focal_mm` real,
	`body` text,
	`job` text,
	`shot` text,
	`placed_by` text,
	`state` text NOT NULL,
	`starred` integer NOT NULL,
	`gone` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `frames_sha256_unique` ON `frames` (`sha256`);--> statement-breakpoint
CREATE INDEX `frames_by_job` ON `frames` (`job`,`arrived_at`);--> statement-breakpoint
CREATE INDEX `frames_by_name` ON `frames` (`name`);