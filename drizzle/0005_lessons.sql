CREATE TABLE `lessons` (
	`id` text PRIMARY KEY NOT NULL,
	`ships` integer DEFAULT false NOT NULL,
	`card` text NOT NULL,
	`json` text NOT NULL,
	`changed_at` integer NOT NULL,
	`deleted_at` integer
);
