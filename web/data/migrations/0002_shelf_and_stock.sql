CREATE TABLE "additive" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"usual_ppm" integer,
	"max_ppm" integer,
	"does" text DEFAULT '' NOT NULL,
	"low" bigint,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "additive_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "dye" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"kind" text NOT NULL,
	"each_mg" bigint,
	"strength" text,
	"colours" text DEFAULT '' NOT NULL,
	"low" bigint,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "dye_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "wick" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"kind" text NOT NULL,
	"size" text DEFAULT '' NOT NULL,
	"from_um" integer,
	"to_um" integer,
	"families" jsonb,
	"low" bigint,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "wick_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "lot" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"material_id" uuid NOT NULL,
	"code" text DEFAULT '' NOT NULL,
	"amount" bigint NOT NULL,
	"cost" bigint,
	"received_on" date NOT NULL,
	"withdrawn" boolean DEFAULT false NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "lot_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "stock_count" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"amount" bigint NOT NULL,
	"person_id" uuid,
	"withdrawn" boolean DEFAULT false NOT NULL,
	CONSTRAINT "stock_count_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "stock_use" (
	"workshop_id" uuid NOT NULL,
	"batch_id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"amount" bigint NOT NULL,
	CONSTRAINT "stock_use_workshop_id_batch_id_material_id_pk" PRIMARY KEY("workshop_id","batch_id","material_id")
);
--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "usual_load_ppm" integer;--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "density" integer;--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "families" jsonb;--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "strength" text;--> statement-breakpoint
ALTER TABLE "fragrance" ADD COLUMN "low" bigint;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "capacity_mg" bigint;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "state" text DEFAULT 'for sale' NOT NULL;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "shape" text DEFAULT 'straight' NOT NULL;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "headspace_um" integer DEFAULT 10000 NOT NULL;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "water_mg" bigint;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "water_to" text DEFAULT 'line' NOT NULL;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "wicks" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "low" bigint;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "remarks" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "melt" integer;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "heat_gate" jsonb;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "add_gate" jsonb;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "pour_gate" jsonb;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "ceiling" integer;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "set_density" integer;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "liquid_density" integer;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "least_cure_seconds" integer;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "cure_seconds" integer;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "blend" jsonb;--> statement-breakpoint
ALTER TABLE "wax" ADD COLUMN "low" bigint;--> statement-breakpoint
ALTER TABLE "workshop" ADD COLUMN "currency" text DEFAULT 'EUR' NOT NULL;--> statement-breakpoint
ALTER TABLE "additive" ADD CONSTRAINT "additive_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dye" ADD CONSTRAINT "dye_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wick" ADD CONSTRAINT "wick_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_count" ADD CONSTRAINT "stock_count_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_use" ADD CONSTRAINT "stock_use_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_use" ADD CONSTRAINT "stock_use_workshop_id_batch_id_batch_workshop_id_id_fk" FOREIGN KEY ("workshop_id","batch_id") REFERENCES "public"."batch"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "lot_by_material" ON "lot" USING btree ("workshop_id","material_id","received_on");--> statement-breakpoint
CREATE INDEX "stock_count_by_material" ON "stock_count" USING btree ("workshop_id","material_id","at");--> statement-breakpoint
CREATE INDEX "stock_use_by_material" ON "stock_use" USING btree ("workshop_id","material_id","at");