CREATE TABLE `set_aside` (
	`id` text PRIMARY KEY NOT NULL,
	`device_id` text NOT NULL,
	`key` text NOT NULL,
	`route` text NOT NULL,
	`path` text NOT NULL,
	`body` text,
	`at` integer NOT NULL,
	`done_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `set_aside_key_unique` ON `set_aside` (`key`);