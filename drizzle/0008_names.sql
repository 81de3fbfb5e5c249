DROP INDEX `people_nickname`;--> statement-breakpoint
ALTER TABLE `people` ADD `folded` text;--> statement-breakpoint
CREATE UNIQUE INDEX `people_pupil` ON `people` (`class_id`,`folded`);--> statement-breakpoint
CREATE UNIQUE INDEX `people_teacher` ON `people` (`folded`) WHERE "people"."role" = 'teacher';--> statement-breakpoint
-- given_id was added without what is to happen when it goes: the table is made anew (sqlite.org/lang_altertable.html, 7), foreign keys are off meanwhile
CREATE TABLE `__new_projects` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`device` text NOT NULL,
	`demo` integer DEFAULT false NOT NULL,
	`changed_at` integer NOT NULL,
	`label` text DEFAULT '' NOT NULL,
	`kinds` text DEFAULT '' NOT NULL,
	`shelf` text,
	`deleted_at` integer,
	`owner` text DEFAULT '' NOT NULL,
	`partner` text,
	`driver` text,
	`given_id` text,
	`origin` text,
	`shown` text,
	FOREIGN KEY (`given_id`) REFERENCES `given`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
INSERT INTO `__new_projects`(`id`, `name`, `device`, `demo`, `changed_at`, `label`, `kinds`, `shelf`, `deleted_at`, `owner`, `partner`, `driver`, `given_id`, `origin`, `shown`) SELECT `id`, `name`, `device`, `demo`, `changed_at`, `label`, `kinds`, `shelf`, `deleted_at`, `owner`, `partner`, `driver`, `given_id`, `origin`, `shown` FROM `projects` ORDER BY rowid;--> statement-breakpoint
DROP TABLE `projects`;--> statement-breakpoint
ALTER TABLE `__new_projects` RENAME TO `projects`;--> statement-breakpoint
CREATE INDEX `projects_shelf` ON `projects` (`owner`,`demo`,`deleted_at`,`changed_at`,`id`);--> statement-breakpoint
CREATE INDEX `projects_partner` ON `projects` (`partner`);--> statement-breakpoint
CREATE INDEX `projects_given` ON `projects` (`given_id`);
