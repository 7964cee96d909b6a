CREATE TABLE `supplies` (
	`id` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`item` text NOT NULL,
	`name` text NOT NULL,
	`unit` text NOT NULL,
	`pack` real NOT NULL,
	`price` real,
	`put_away` integer
);
--> statement-breakpoint
CREATE UNIQUE INDEX `supplies_item_unique` ON `supplies` (`item`);--> statement-breakpoint
ALTER TABLE `entries` ADD `quantity` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `supply` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `programme` text;--> statement-breakpoint
ALTER TABLE `entries` ADD `habit` text;--> statement-breakpoint
ALTER TABLE `households` ADD `visit_minutes` integer;--> statement-breakpoint
ALTER TABLE `households` ADD `multipliers` text;--> statement-breakpoint
ALTER TABLE `households` ADD `currency` text;--> statement-breakpoint
ALTER TABLE `machines` ADD `own_tasks` text;--> statement-breakpoint
DROP TRIGGER `entries_are_not_changed`;
--> statement-breakpoint
UPDATE `entries` SET `quantity` = json_extract(`more`, '$.quantity'), `more` = json_remove(`more`, '$.quantity')
WHERE json_extract(`more`, '$.quantity') IS NOT NULL;
--> statement-breakpoint
CREATE TRIGGER `entries_are_not_changed` BEFORE UPDATE ON `entries`
BEGIN SELECT RAISE(ABORT, 'entries are append-only'); END;
