CREATE TABLE `access_events` (
	`number` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` integer NOT NULL,
	`what` text NOT NULL,
	`person_id` text,
	`device` text,
	`more` text
);
--> statement-breakpoint
CREATE INDEX `access_events_at` ON `access_events` (`at`);--> statement-breakpoint
CREATE TABLE `devices` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`name` text NOT NULL,
	`digest` text NOT NULL,
	`weak` integer NOT NULL,
	`paired_at` integer NOT NULL,
	`seen_at` integer NOT NULL,
	`until` integer NOT NULL,
	`revoked_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `devices_digest_unique` ON `devices` (`digest`);--> statement-breakpoint
CREATE INDEX `devices_person` ON `devices` (`person_id`);--> statement-breakpoint
CREATE TABLE `links` (
	`id` text PRIMARY KEY NOT NULL,
	`digest` text NOT NULL,
	`shows` text NOT NULL,
	`target` text NOT NULL,
	`for_whom` text NOT NULL,
	`made_at` integer NOT NULL,
	`until` integer NOT NULL,
	`opened` integer NOT NULL,
	`opened_at` integer,
	`revoked_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `links_digest_unique` ON `links` (`digest`);--> statement-breakpoint
CREATE TABLE `pairing_codes` (
	`digest` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`until` integer NOT NULL,
	`used_at` integer
);
--> statement-breakpoint
CREATE TABLE `persons` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`position` integer NOT NULL,
	`name` text NOT NULL,
	`thread` text NOT NULL,
	`role` text NOT NULL,
	`passphrase` text
);
--> statement-breakpoint
CREATE TABLE `tokens` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`digest` text NOT NULL,
	`scopes` text NOT NULL,
	`made_at` integer NOT NULL,
	`used_at` integer,
	`revoked_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `tokens_digest_unique` ON `tokens` (`digest`);