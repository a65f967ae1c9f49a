ALTER TABLE "wax" RENAME COLUMN "heat_gate" TO "heat_range";--> statement-breakpoint
ALTER TABLE "wax" RENAME COLUMN "add_gate" TO "add_range";--> statement-breakpoint
ALTER TABLE "wax" RENAME COLUMN "pour_gate" TO "pour_range";--> statement-breakpoint
-- Names become unique: of things with one name the later ones are numbered.
UPDATE "additive" SET "name" = left("additive"."name", 100) || ' (same name ' || twin."n" || ')', "version" = "additive"."version" + 1 FROM (SELECT "workshop_id", "id", row_number() OVER (PARTITION BY "workshop_id", lower("name") ORDER BY "id") AS "n" FROM "additive") AS twin WHERE twin."workshop_id" = "additive"."workshop_id" AND twin."id" = "additive"."id" AND twin."n" > 1;--> statement-breakpoint
UPDATE "dye" SET "name" = left("dye"."name", 100) || ' (same name ' || twin."n" || ')', "version" = "dye"."version" + 1 FROM (SELECT "workshop_id", "id", row_number() OVER (PARTITION BY "workshop_id", lower("name") ORDER BY "id") AS "n" FROM "dye") AS twin WHERE twin."workshop_id" = "dye"."workshop_id" AND twin."id" = "dye"."id" AND twin."n" > 1;--> statement-breakpoint
UPDATE "fragrance" SET "name" = left("fragrance"."name", 100) || ' (same name ' || twin."n" || ')', "version" = "fragrance"."version" + 1 FROM (SELECT "workshop_id", "id", row_number() OVER (PARTITION BY "workshop_id", lower("name") ORDER BY "id") AS "n" FROM "fragrance") AS twin WHERE twin."workshop_id" = "fragrance"."workshop_id" AND twin."id" = "fragrance"."id" AND twin."n" > 1;--> statement-breakpoint
UPDATE "instrument" SET "name" = left("instrument"."name", 100) || ' (same name ' || twin."n" || ')', "version" = "instrument"."version" + 1 FROM (SELECT "workshop_id", "id", row_number() OVER (PARTITION BY "workshop_id", lower("name") ORDER BY "id") AS "n" FROM "instrument") AS twin WHERE twin."workshop_id" = "instrument"."workshop_id" AND twin."id" = "instrument"."id" AND twin."n" > 1;--> statement-breakpoint
UPDATE "vessel" SET "name" = left("vessel"."name", 100) || ' (same name ' || twin."n" || ')', "version" = "vessel"."version" + 1 FROM (SELECT "workshop_id", "id", row_number() OVER (PARTITION BY "workshop_id", lower("name") ORDER BY "id") AS "n" FROM "vessel") AS twin WHERE twin."workshop_id" = "vessel"."workshop_id" AND twin."id" = "vessel"."id" AND twin."n" > 1;--> statement-breakpoint
UPDATE "wax" SET "name" = left("wax"."name", 100) || ' (same name ' || twin."n" || ')', "version" = "wax"."version" + 1 FROM (SELECT "workshop_id", "id", row_number() OVER (PARTITION BY "workshop_id", lower("name") ORDER BY "id") AS "n" FROM "wax") AS twin WHERE twin."workshop_id" = "wax"."workshop_id" AND twin."id" = "wax"."id" AND twin."n" > 1;--> statement-breakpoint
UPDATE "wick" SET "name" = left("wick"."name", 100) || ' (same name ' || twin."n" || ')', "version" = "wick"."version" + 1 FROM (SELECT "workshop_id", "id", row_number() OVER (PARTITION BY "workshop_id", lower("name") ORDER BY "id") AS "n" FROM "wick") AS twin WHERE twin."workshop_id" = "wick"."workshop_id" AND twin."id" = "wick"."id" AND twin."n" > 1;--> statement-breakpoint
CREATE TABLE "process_version" (
	"workshop_id" uuid NOT NULL,
	"process_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"process" jsonb NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	CONSTRAINT "process_version_workshop_id_process_id_number_pk" PRIMARY KEY("workshop_id","process_id","number")
);
--> statement-breakpoint
CREATE TABLE "process" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	"updated_by" uuid,
	CONSTRAINT "process_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "mould" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"kind" text NOT NULL,
	"cavities" integer DEFAULT 1 NOT NULL,
	"fill_mg" bigint NOT NULL,
	"inner_top_um" integer NOT NULL,
	"inner_bottom_um" integer NOT NULL,
	"height_um" integer NOT NULL,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "mould_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "batch_event" ADD COLUMN "device_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "batch_event" ADD COLUMN "v" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "batch_event" ADD COLUMN "seq" bigint NOT NULL GENERATED ALWAYS AS IDENTITY (sequence name "batch_event_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1);--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "received_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "plan" jsonb;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "facts" jsonb;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "set_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "test_from" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "sell_from" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "draws_stock" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "process_version" ADD CONSTRAINT "process_version_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "process_version" ADD CONSTRAINT "process_version_workshop_id_process_id_process_workshop_id_id_fk" FOREIGN KEY ("workshop_id","process_id") REFERENCES "public"."process"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "process" ADD CONSTRAINT "process_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mould" ADD CONSTRAINT "mould_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "process_name" ON "process" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "mould_name" ON "mould" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE INDEX "batch_event_by_seq" ON "batch_event" USING btree ("workshop_id","batch_id","seq");--> statement-breakpoint
CREATE INDEX "batch_event_by_corrects" ON "batch_event" USING btree ("workshop_id","corrects");--> statement-breakpoint
CREATE INDEX "batch_to_look" ON "batch" USING btree ("workshop_id","stage","looked_at","set_at");--> statement-breakpoint
CREATE UNIQUE INDEX "additive_name" ON "additive" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "dye_name" ON "dye" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "fragrance_name" ON "fragrance" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "instrument_name" ON "instrument" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "vessel_name" ON "vessel" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "wax_name" ON "wax" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE UNIQUE INDEX "wick_name" ON "wick" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- A whole workshop may be removed, and a start that nothing followed be undone; a single entry may not be changed or taken out.
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  IF TG_OP = 'DELETE' AND OLD.kind = 'started' AND NOT EXISTS (SELECT 1 FROM batch_event WHERE workshop_id = OLD.workshop_id AND batch_id = OLD.batch_id AND id <> OLD.id) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'batch_event is append-only: write a correcting event instead';
END
$$;
