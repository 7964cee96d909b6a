CREATE TABLE `vent_runs` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`name` text NOT NULL,
	`machine_id` text,
	`run` text NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
ALTER TABLE `households` ADD `energy_price` real;--> statement-breakpoint
ALTER TABLE `households` ADD `detergents` text;