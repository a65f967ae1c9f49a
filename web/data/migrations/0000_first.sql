CREATE TABLE "batch_event" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"batch_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"happened_at" timestamp with time zone NOT NULL,
	"arrived_at" timestamp with time zone NOT NULL,
	"person_id" uuid,
	"instrument_id" uuid,
	"corrects" uuid,
	"payload" jsonb NOT NULL,
	CONSTRAINT "batch_event_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "batch" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" integer NOT NULL,
	"formula_version_id" uuid NOT NULL,
	"stage" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"poured_at" timestamp with time zone,
	"looked_at" timestamp with time zone,
	"closed_at" timestamp with time zone,
	CONSTRAINT "batch_workshop_id_id_pk" PRIMARY KEY("workshop_id","id"),
	CONSTRAINT "batch_number" UNIQUE("workshop_id","number")
);
--> statement-breakpoint
CREATE TABLE "formula_version" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"formula_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"spec" jsonb NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	CONSTRAINT "formula_version_workshop_id_id_pk" PRIMARY KEY("workshop_id","id"),
	CONSTRAINT "formula_version_number" UNIQUE("workshop_id","formula_id","number")
);
--> statement-breakpoint
CREATE TABLE "formula" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	"updated_by" uuid,
	CONSTRAINT "formula_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "fragrance" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"kind" text NOT NULL,
	"max_load_ppm" integer,
	"flash_point" integer,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "fragrance_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "instrument" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"kind" text NOT NULL,
	"correction" integer DEFAULT 0 NOT NULL,
	"resolution_ug" bigint,
	CONSTRAINT "instrument_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "vessel" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"material" text NOT NULL,
	"stated_fill_mg" bigint NOT NULL,
	"working_fill_mg" bigint NOT NULL,
	"sold_by_weight" boolean DEFAULT false NOT NULL,
	"inner_top_um" integer NOT NULL,
	"inner_bottom_um" integer NOT NULL,
	"height_um" integer NOT NULL,
	CONSTRAINT "vessel_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "wax" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"family" text NOT NULL,
	"max_load_ppm" integer,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "wax_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "person" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	CONSTRAINT "person_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "workshop" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"mass_unit" text NOT NULL,
	"temperature_unit" text NOT NULL,
	"time_zone" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "batch_event" ADD CONSTRAINT "batch_event_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_event" ADD CONSTRAINT "batch_event_workshop_id_batch_id_batch_workshop_id_id_fk" FOREIGN KEY ("workshop_id","batch_id") REFERENCES "public"."batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_event" ADD CONSTRAINT "batch_event_workshop_id_person_id_person_workshop_id_id_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_event" ADD CONSTRAINT "batch_event_workshop_id_instrument_id_instrument_workshop_id_id_fk" FOREIGN KEY ("workshop_id","instrument_id") REFERENCES "public"."instrument"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch_event" ADD CONSTRAINT "batch_event_workshop_id_corrects_batch_event_workshop_id_id_fk" FOREIGN KEY ("workshop_id","corrects") REFERENCES "public"."batch_event"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_workshop_id_formula_version_id_formula_version_workshop_id_id_fk" FOREIGN KEY ("workshop_id","formula_version_id") REFERENCES "public"."formula_version"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "formula_version" ADD CONSTRAINT "formula_version_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "formula_version" ADD CONSTRAINT "formula_version_workshop_id_formula_id_formula_workshop_id_id_fk" FOREIGN KEY ("workshop_id","formula_id") REFERENCES "public"."formula"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "formula" ADD CONSTRAINT "formula_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "fragrance" ADD CONSTRAINT "fragrance_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "instrument" ADD CONSTRAINT "instrument_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "vessel" ADD CONSTRAINT "vessel_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wax" ADD CONSTRAINT "wax_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "batch_event_by_batch" ON "batch_event" USING btree ("workshop_id","batch_id","happened_at","id");--> statement-breakpoint
CREATE INDEX "batch_by_stage" ON "batch" USING btree ("workshop_id","stage","started_at","id");--> statement-breakpoint
CREATE INDEX "batch_by_version" ON "batch" USING btree ("workshop_id","formula_version_id");--> statement-breakpoint
CREATE INDEX "formula_by_time" ON "formula" USING btree ("workshop_id","updated_at","id");