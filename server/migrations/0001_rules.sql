ALTER TABLE `machines` ADD `school` text;--> statement-breakpoint
ALTER TABLE `machines` ADD `rules` text;