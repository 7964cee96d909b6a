CREATE TABLE `absences` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`from_day` text NOT NULL,
	`to_day` text NOT NULL,
	`note` text
);
--> statement-breakpoint
CREATE TABLE `busy_calendars` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`name` text NOT NULL,
	`days` text NOT NULL,
	`read_on` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `feeds` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text,
	`digest` text NOT NULL,
	`name` text NOT NULL,
	`evening` integer NOT NULL,
	`begins` integer NOT NULL,
	`who` text,
	`made_at` integer NOT NULL,
	`read_at` integer,
	`revoked_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `feeds_digest_unique` ON `feeds` (`digest`);--> statement-breakpoint
CREATE TABLE `mail_recipients` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text,
	`address` text NOT NULL,
	`weekday` integer NOT NULL,
	`sent_on` text,
	`tries` integer NOT NULL,
	`next_try_at` integer,
	`problem` text
);
--> statement-breakpoint
CREATE UNIQUE INDEX `mail_recipients_address_unique` ON `mail_recipients` (`address`);--> statement-breakpoint
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