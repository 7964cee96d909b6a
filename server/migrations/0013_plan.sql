CREATE TABLE `absences` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`from_day` text NOT NULL,
	`to_day` text NOT NULL,
	`note` text
);
--> statement-breakpoint
CREATE TABLE `planned_visits` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`day` text NOT NULL,
	`place` text NOT NULL,
	`tasks` text NOT NULL,
	`who` text,
	`held` integer,
	`skipped` text,
	`moved` text,
	`done` integer,
	`changed_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `planned_visits_day` ON `planned_visits` (`day`);--> statement-breakpoint
ALTER TABLE `households` ADD `plan` text;