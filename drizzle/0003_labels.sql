ALTER TABLE `projects` ADD `label` text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `projects` ADD `kinds` text DEFAULT '' NOT NULL;--> statement-breakpoint
UPDATE `projects` SET `shelf` = NULL;
