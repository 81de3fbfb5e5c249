CREATE TABLE `helpers` (
	`class_id` text NOT NULL,
	`teacher_id` text NOT NULL,
	PRIMARY KEY(`class_id`, `teacher_id`),
	FOREIGN KEY (`class_id`) REFERENCES `classes`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`teacher_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
CREATE INDEX `helpers_teacher` ON `helpers` (`teacher_id`);--> statement-breakpoint
CREATE TABLE `readings` (
	`person_id` text NOT NULL,
	`lesson_id` text NOT NULL,
	`json` text NOT NULL,
	`at` integer NOT NULL,
	PRIMARY KEY(`person_id`, `lesson_id`),
	FOREIGN KEY (`person_id`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE cascade
);
--> statement-breakpoint
ALTER TABLE `comments` ADD `under` integer REFERENCES comments(id) ON DELETE cascade;--> statement-breakpoint
ALTER TABLE `comments` ADD `changed_at` integer;--> statement-breakpoint
ALTER TABLE `given` ADD `json` text;--> statement-breakpoint
ALTER TABLE `hand_ins` ADD `seen_at` integer;--> statement-breakpoint
ALTER TABLE `hand_ins` ADD `back_at` integer;--> statement-breakpoint
ALTER TABLE `people` ADD `card` text;