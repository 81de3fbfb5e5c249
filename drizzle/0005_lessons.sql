CREATE TABLE `lessons` (
	`id` text PRIMARY KEY NOT NULL,
	`ships` integer DEFAULT false NOT NULL,
	`card` text NOT NULL,
	`json` text NOT NULL,
	`changed_at` integer NOT NULL,
	`deleted_at` integer
);
--> statement-breakpoint
-- cards know their mat and kit from now on: they are worked out anew when Moss Bell starts
UPDATE `projects` SET `shelf` = NULL;
