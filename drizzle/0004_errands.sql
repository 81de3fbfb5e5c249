CREATE TABLE `errands` (
	`id` text PRIMARY KEY NOT NULL,
	`ships` integer DEFAULT false NOT NULL,
	`card` text NOT NULL,
	`json` text NOT NULL,
	`changed_at` integer NOT NULL,
	`deleted_at` integer
);
--> statement-breakpoint
ALTER TABLE `runs` ADD `errand` text;--> statement-breakpoint
ALTER TABLE `runs` ADD `result` text;--> statement-breakpoint
CREATE INDEX `runs_errand` ON `runs` (`errand`);