CREATE TABLE `documents` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`machine_id` text NOT NULL,
	`kind` text NOT NULL,
	`name` text NOT NULL,
	`type` text NOT NULL,
	`bytes` integer NOT NULL,
	`stored_at` integer NOT NULL,
	`file` blob NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `documents_machine` ON `documents` (`machine_id`);--> statement-breakpoint
ALTER TABLE `machines` ADD `pages` text;