ALTER TABLE `households` ADD `region` text;--> statement-breakpoint
ALTER TABLE `households` ADD `numbers` text;