ALTER TABLE "batch" ADD COLUMN "title" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "jar_totals" jsonb DEFAULT '{"jars":0,"statuses":[],"whom":[]}'::jsonb NOT NULL;