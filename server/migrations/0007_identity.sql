ALTER TABLE `households` ADD `places` text;--> statement-breakpoint
ALTER TABLE `machines` ADD `identity` text;