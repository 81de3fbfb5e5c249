CREATE TABLE `runs` (
	`id` text PRIMARY KEY NOT NULL,
	`project_id` text NOT NULL,
	`at` integer NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`device` text NOT NULL,
	`ended` text NOT NULL,
	`ms` integer NOT NULL,
	`pinned` integer DEFAULT false NOT NULL,
	`file` blob NOT NULL,
	FOREIGN KEY (`project_id`) REFERENCES `projects`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `runs_project` ON `runs` (`project_id`,`at`);