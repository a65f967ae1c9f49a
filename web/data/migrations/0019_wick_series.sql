ALTER TABLE "wick" ADD COLUMN "series" text DEFAULT '' NOT NULL;--> statement-breakpoint
-- Until now the sizes of a kind were one line: they stay so, ordered as before, until their makers' series are named.
UPDATE "wick" SET "series" = "kind";
