CREATE TABLE "bin" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"rows" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "bin_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "merged" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"gone_id" uuid NOT NULL,
	"kept_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"moved" jsonb NOT NULL,
	"undone" boolean DEFAULT false NOT NULL,
	CONSTRAINT "merged_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "product" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"put_away" boolean DEFAULT false NOT NULL,
	"formula_id" uuid NOT NULL,
	"body" text NOT NULL,
	"body_id" uuid NOT NULL,
	"wick_id" uuid,
	"wicks" integer DEFAULT 1 NOT NULL,
	"price" bigint,
	"sold_by" text DEFAULT 'piece' NOT NULL,
	"pack" integer DEFAULT 1 NOT NULL,
	"pack_cost" bigint,
	"hands_seconds" integer,
	"heat_seconds" integer,
	"wick_test" text DEFAULT 'test due' NOT NULL,
	"tested_as" jsonb,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "product_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "formula" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "process" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "additive" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "dye" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "mould" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "wick" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "put_away" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "length_unit" text DEFAULT 'mm' NOT NULL;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "pounds" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "locale" text DEFAULT 'en-GB' NOT NULL;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "hands_cost" bigint;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "heat_cost" bigint;--> statement-breakpoint
ALTER TABLE "bin" ADD CONSTRAINT "bin_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "merged" ADD CONSTRAINT "merged_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "product" ADD CONSTRAINT "product_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "product" ADD CONSTRAINT "product_workshop_id_formula_id_formula_workshop_id_id_fk" FOREIGN KEY ("workshop_id","formula_id") REFERENCES "public"."formula"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "merged_by_gone" ON "merged" USING btree ("workshop_id","gone_id");--> statement-breakpoint
CREATE UNIQUE INDEX "product_name" ON "product" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE INDEX "product_by_formula" ON "product" USING btree ("workshop_id","formula_id");--> statement-breakpoint
-- "8 oz jar" before "12 oz jar": numbers within a name are ordered as numbers.
CREATE COLLATION natural_order (provider = icu, locale = 'und-u-kn-true');
