ALTER TABLE "outcome" ADD COLUMN "fragrance" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "outcome" ADD COLUMN "smells" jsonb DEFAULT '[]'::jsonb NOT NULL;