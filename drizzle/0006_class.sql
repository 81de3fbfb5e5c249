CREATE TABLE `audit` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`at` integer NOT NULL,
	`teacher_id` text,
	`class_id` text,
	`what` text NOT NULL,
	`whom` text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE INDEX `audit_teacher` ON `audit` (`teacher_id`,`id`);--> statement-breakpoint
CREATE TABLE `backups` (
	`file` text PRIMARY KEY NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `classes` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`code` text NOT NULL,
	`teacher_id` text NOT NULL,
	`language` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`teacher_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `classes_code_unique` ON `classes` (`code`);--> statement-breakpoint
CREATE TABLE `comments` (
	`id` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`project_id` text NOT NULL,
	`person_id` text NOT NULL,
	`block` text,
	`text` text NOT NULL,
	`at` integer NOT NULL,
	`done_at` integer,
	FOREIGN KEY (`project_id`) REFERENCES `projects`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `comments_project` ON `comments` (`project_id`);--> statement-breakpoint
CREATE TABLE `given` (
	`id` text PRIMARY KEY NOT NULL,
	`class_id` text NOT NULL,
	`group` text DEFAULT '' NOT NULL,
	`kind` text NOT NULL,
	`target` text NOT NULL,
	`at` integer NOT NULL,
	`from_at` integer NOT NULL,
	`until_at` integer,
	FOREIGN KEY (`class_id`) REFERENCES `classes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `given_class` ON `given` (`class_id`);--> statement-breakpoint
CREATE TABLE `guesses` (
	`round_id` text NOT NULL,
	`person_id` text NOT NULL,
	`x` real NOT NULL,
	`y` real NOT NULL,
	PRIMARY KEY(`round_id`, `person_id`),
	FOREIGN KEY (`round_id`) REFERENCES `rounds`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE TABLE `hand_ins` (
	`id` text PRIMARY KEY NOT NULL,
	`project_id` text NOT NULL,
	`person_id` text NOT NULL,
	`given_id` text,
	`at` integer NOT NULL,
	`note` text NOT NULL,
	`json` text NOT NULL,
	`run` blob,
	`result` text,
	`withdrawn_at` integer,
	FOREIGN KEY (`project_id`) REFERENCES `projects`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`given_id`) REFERENCES `given`(`id`) ON UPDATE no action ON DELETE set null
);
--> statement-breakpoint
CREATE INDEX `hand_ins_project` ON `hand_ins` (`project_id`);--> statement-breakpoint
CREATE INDEX `hand_ins_person` ON `hand_ins` (`person_id`);--> statement-breakpoint
CREATE TABLE `links` (
	`token` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`target` text NOT NULL,
	`at` integer NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `links_target` ON `links` (`kind`,`target`);--> statement-breakpoint
CREATE TABLE `people` (
	`id` text PRIMARY KEY NOT NULL,
	`role` text NOT NULL,
	`nickname` text NOT NULL,
	`class_id` text,
	`secret` text NOT NULL,
	`group` text DEFAULT '' NOT NULL,
	`partner` text,
	`hand_up_at` integer,
	`at` integer NOT NULL,
	FOREIGN KEY (`class_id`) REFERENCES `classes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE UNIQUE INDEX `people_nickname` ON `people` (`class_id`,`nickname`);--> statement-breakpoint
CREATE TABLE `rounds` (
	`id` text PRIMARY KEY NOT NULL,
	`class_id` text NOT NULL,
	`json` text NOT NULL,
	`at` integer NOT NULL,
	`stop_x` real,
	`stop_y` real,
	FOREIGN KEY (`class_id`) REFERENCES `classes`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `rounds_class` ON `rounds` (`class_id`,`at`);--> statement-breakpoint
CREATE TABLE `sessions` (
	`hash` text PRIMARY KEY NOT NULL,
	`person_id` text NOT NULL,
	`ends_at` integer NOT NULL,
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `sessions_person` ON `sessions` (`person_id`);--> statement-breakpoint
DROP INDEX `projects_shelf`;--> statement-breakpoint
ALTER TABLE `projects` ADD `owner` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `projects` ADD `partner` text;--> statement-breakpoint
ALTER TABLE `projects` ADD `driver` text;--> statement-breakpoint
ALTER TABLE `projects` ADD `given_id` text REFERENCES given(id);--> statement-breakpoint
ALTER TABLE `projects` ADD `origin` text;--> statement-breakpoint
ALTER TABLE `projects` ADD `shown` text;--> statement-breakpoint
CREATE INDEX `projects_partner` ON `projects` (`partner`);--> statement-breakpoint
CREATE INDEX `projects_given` ON `projects` (`given_id`);--> statement-breakpoint
CREATE INDEX `projects_shelf` ON `projects` (`owner`,`demo`,`deleted_at`,`changed_at`,`id`);--> statement-breakpoint
ALTER TABLE `errands` ADD `owner` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `lessons` ADD `owner` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `lessons` ADD `tab` text;--> statement-breakpoint
ALTER TABLE `runs` ADD `told` text;--> statement-breakpoint
ALTER TABLE `versions` ADD `tab` text;