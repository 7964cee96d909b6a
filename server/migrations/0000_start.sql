CREATE TABLE `answers` (
	`key` text PRIMARY KEY NOT NULL,
	`request` text NOT NULL,
	`answer` text NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `entries` (
	`id` text PRIMARY KEY NOT NULL,
	`machine_id` text,
	`kind` text NOT NULL,
	`at` integer NOT NULL,
	`day` text NOT NULL,
	`zone` text NOT NULL,
	`author` text NOT NULL,
	`source` text NOT NULL,
	`recorded_at` integer NOT NULL,
	`run_id` text,
	`revises` text,
	`station` text,
	`task` text,
	`grade` integer,
	`count` integer,
	`value` real,
	`more` text NOT NULL,
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`run_id`) REFERENCES `runs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`revises`) REFERENCES `entries`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `entries_revises` ON `entries` (`revises`) WHERE revises is not null;--> statement-breakpoint
CREATE INDEX `entries_machine` ON `entries` (`machine_id`,`kind`,`at`);--> statement-breakpoint
CREATE INDEX `entries_at` ON `entries` (`at`,`id`);--> statement-breakpoint
CREATE INDEX `entries_run` ON `entries` (`run_id`) WHERE run_id is not null;--> statement-breakpoint
CREATE TABLE `facts` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `households` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`name` text NOT NULL,
	`zone` text NOT NULL,
	`units` text NOT NULL,
	`hardness` real,
	`school` text NOT NULL,
	`risk` real NOT NULL
);
--> statement-breakpoint
CREATE TABLE `machines` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`position` integer NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`maker` text,
	`place` text NOT NULL,
	`features` text NOT NULL,
	`habits` text NOT NULL,
	`loads_per_week` real NOT NULL,
	`in_use_since` text
);
--> statement-breakpoint
CREATE TABLE `runs` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`state` text NOT NULL,
	`tasks` text NOT NULL,
	`progress` text NOT NULL,
	`started_at` integer NOT NULL,
	`changed_at` integer NOT NULL,
	`finished_at` integer
);
--> statement-breakpoint
CREATE TRIGGER `entries_are_not_changed` BEFORE UPDATE ON `entries`
BEGIN SELECT RAISE(ABORT, 'entries are append-only'); END;
--> statement-breakpoint
CREATE TRIGGER `entries_are_not_deleted` BEFORE DELETE ON `entries`
BEGIN SELECT RAISE(ABORT, 'entries are append-only'); END;
