CREATE TABLE `case_events` (
	`number` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`case_id` text NOT NULL,
	`event` text NOT NULL,
	`recorded_at` integer NOT NULL,
	FOREIGN KEY (`case_id`) REFERENCES `cases`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `case_events_id_unique` ON `case_events` (`id`);--> statement-breakpoint
CREATE INDEX `case_events_case` ON `case_events` (`case_id`,`number`);--> statement-breakpoint
CREATE TABLE `cases` (
	`id` text PRIMARY KEY NOT NULL,
	`machine_id` text NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `code_sheets` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`sheet` text NOT NULL
);
--> statement-breakpoint
CREATE TRIGGER `case_events_are_not_changed` BEFORE UPDATE ON `case_events`
BEGIN SELECT RAISE(ABORT, 'what happened in a case is never changed'); END;
--> statement-breakpoint
CREATE TRIGGER `case_events_are_not_deleted` BEFORE DELETE ON `case_events`
BEGIN SELECT RAISE(ABORT, 'what happened in a case is never deleted'); END;
