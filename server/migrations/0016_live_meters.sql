CREATE TABLE `meter_samples` (
	`meter_id` text NOT NULL,
	`at` integer NOT NULL,
	`watts` real,
	`watt_hours` real,
	PRIMARY KEY(`meter_id`, `at`)
) WITHOUT ROWID;
--> statement-breakpoint
CREATE TABLE `meters` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`name` text NOT NULL,
	`machine_id` text NOT NULL,
	`dryer_id` text,
	`mqtt` text
);
--> statement-breakpoint
ALTER TABLE `tokens` ADD `meter_id` text;