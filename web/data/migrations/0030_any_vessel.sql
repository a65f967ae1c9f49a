ALTER TABLE "fragrance" ADD COLUMN "purity" text;--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "pure_ppm" integer;--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "ratings" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "best_loads" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "price" bigint;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "life_pieces" integer;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "use" text DEFAULT 'candle' NOT NULL;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "nominal_ul" integer;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "cavities" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "lead_tested_on" date;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "family_name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "wick_advice" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "wick" ADD COLUMN "kind_name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "list_cost" bigint;