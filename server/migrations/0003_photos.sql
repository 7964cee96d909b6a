CREATE TABLE `photos` (
	`id` text PRIMARY KEY NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`picture` blob NOT NULL,
	`stored_at` integer NOT NULL
);
