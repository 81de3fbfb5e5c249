CREATE TABLE `picture_uses` (
	`hash` text NOT NULL,
	`project_id` text NOT NULL,
	PRIMARY KEY(`hash`, `project_id`),
	FOREIGN KEY (`project_id`) REFERENCES `projects`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `pictures` (
	`hash` text PRIMARY KEY NOT NULL,
	`data` text NOT NULL
);
--> statement-breakpoint
ALTER TABLE `projects` ADD `shelf` text;--> statement-breakpoint
ALTER TABLE `projects` ADD `deleted_at` integer;--> statement-breakpoint
CREATE INDEX `projects_shelf` ON `projects` (`demo`,`deleted_at`,`changed_at`,`id`);