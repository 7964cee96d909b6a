CREATE TABLE `meter_days` (
	`machine_id` text NOT NULL,
	`day` text NOT NULL,
	`minutes` blob NOT NULL,
	PRIMARY KEY(`machine_id`, `day`),
	FOREIGN KEY (`machine_id`) REFERENCES `machines`(`id`) ON UPDATE no action ON DELETE no action
);
