CREATE TABLE `passkeys` (
	`id` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`credential` text NOT NULL,
	`public_key` blob NOT NULL,
	`counter` integer NOT NULL,
	`transports` text NOT NULL,
	`name` text NOT NULL,
	`made_at` integer NOT NULL,
	`used_at` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `passkeys_credential_unique` ON `passkeys` (`credential`);--> statement-breakpoint
CREATE INDEX `passkeys_person` ON `passkeys` (`person_id`);--> statement-breakpoint
CREATE TABLE `__new_set_aside` (
	`id` text PRIMARY KEY NOT NULL,
	`device_id` text,
	`link_id` text,
	`photo` blob,
	`key` text NOT NULL,
	`route` text NOT NULL,
	`path` text NOT NULL,
	`body` text,
	`at` integer NOT NULL,
	`done_at` integer
);
--> statement-breakpoint
INSERT INTO `__new_set_aside`(`id`, `device_id`, `key`, `route`, `path`, `body`, `at`, `done_at`) SELECT `id`, `device_id`, `key`, `route`, `path`, `body`, `at`, `done_at` FROM `set_aside`;--> statement-breakpoint
DROP TABLE `set_aside`;--> statement-breakpoint
ALTER TABLE `__new_set_aside` RENAME TO `set_aside`;--> statement-breakpoint
CREATE UNIQUE INDEX `set_aside_key_unique` ON `set_aside` (`key`);--> statement-breakpoint
ALTER TABLE `links` ADD `notes` integer DEFAULT false NOT NULL;