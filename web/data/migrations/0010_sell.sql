CREATE TABLE "sale_order_event" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"order_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"happened_at" timestamp with time zone NOT NULL,
	"arrived_at" timestamp with time zone NOT NULL,
	"person_id" uuid,
	"instrument_id" uuid,
	"corrects" uuid,
	"device_at" timestamp with time zone,
	"v" integer DEFAULT 1 NOT NULL,
	"payload" jsonb NOT NULL,
	"seq" bigint GENERATED ALWAYS AS IDENTITY (sequence name "sale_order_event_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	CONSTRAINT "sale_order_event_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "sale_goods" (
	"workshop_id" uuid NOT NULL,
	"order_id" uuid NOT NULL,
	"packing_id" uuid NOT NULL,
	"sellable_id" uuid NOT NULL,
	"name" text NOT NULL,
	"what" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"out" integer NOT NULL,
	"sold" integer NOT NULL,
	"given" integer NOT NULL,
	"second" integer NOT NULL,
	"back" integer NOT NULL,
	"money" bigint NOT NULL,
	"cost" bigint,
	CONSTRAINT "sale_goods_workshop_id_order_id_packing_id_pk" PRIMARY KEY("workshop_id","order_id","packing_id")
);
--> statement-breakpoint
CREATE TABLE "sale_line" (
	"workshop_id" uuid NOT NULL,
	"order_id" uuid NOT NULL,
	"sellable_id" uuid NOT NULL,
	"name" text NOT NULL,
	"asked" integer NOT NULL,
	"lacking" integer NOT NULL,
	CONSTRAINT "sale_line_workshop_id_order_id_sellable_id_pk" PRIMARY KEY("workshop_id","order_id","sellable_id")
);
--> statement-breakpoint
CREATE TABLE "sale_order" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" integer NOT NULL,
	"what" text NOT NULL,
	"name" text NOT NULL,
	"wanted_on" date,
	"stage" text NOT NULL,
	"plan" jsonb NOT NULL,
	"facts" jsonb NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"last_at" timestamp with time zone NOT NULL,
	CONSTRAINT "sale_order_workshop_id_id_pk" PRIMARY KEY("workshop_id","id"),
	CONSTRAINT "sale_order_number" UNIQUE("workshop_id","number")
);
--> statement-breakpoint
CREATE TABLE "packed_piece" (
	"workshop_id" uuid NOT NULL,
	"packing_id" uuid NOT NULL,
	"batch_id" uuid NOT NULL,
	"product" text NOT NULL,
	"product_id" uuid NOT NULL,
	"pieces" integer NOT NULL,
	CONSTRAINT "packed_piece_workshop_id_packing_id_batch_id_product_pk" PRIMARY KEY("workshop_id","packing_id","batch_id","product")
);
--> statement-breakpoint
CREATE TABLE "packing" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"sellable_id" uuid NOT NULL,
	"name" text NOT NULL,
	"packs" integer NOT NULL,
	"gone" integer DEFAULT 0 NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"poured_at" timestamp with time zone NOT NULL,
	"cost_each" bigint,
	"weights_mg" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"stated_mg" bigint,
	"person_id" uuid,
	"undone" boolean DEFAULT false NOT NULL,
	CONSTRAINT "packing_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "product_set" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"put_away" boolean DEFAULT false NOT NULL,
	"contents" jsonb NOT NULL,
	"packing" jsonb NOT NULL,
	"price" bigint,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "product_set_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "label_sheet" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"sheet" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"gone" boolean DEFAULT false NOT NULL,
	CONSTRAINT "label_sheet_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "labelling" (
	"workshop_id" uuid NOT NULL,
	"settings" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "labelling_workshop_id_pk" PRIMARY KEY("workshop_id")
);
--> statement-breakpoint
CREATE TABLE "supplier_sheet" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"material_id" uuid NOT NULL,
	"on_day" date NOT NULL,
	"sheet" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" uuid,
	"gone" boolean DEFAULT false NOT NULL,
	CONSTRAINT "supplier_sheet_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "pack" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"put_away" boolean DEFAULT false NOT NULL,
	"kind" text NOT NULL,
	"length_um" integer,
	"width_um" integer,
	"height_um" integer,
	"low" bigint,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "pack_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "loose" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "loose_of" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "packing" jsonb;--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "label_body" text;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "outer_um" integer;--> statement-breakpoint
ALTER TABLE "vessel" ADD COLUMN "outer_height_um" integer;--> statement-breakpoint
ALTER TABLE "sale_order_event" ADD CONSTRAINT "sale_order_event_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_order_event" ADD CONSTRAINT "sale_order_event_workshop_id_order_id_sale_order_workshop_id_id_fk" FOREIGN KEY ("workshop_id","order_id") REFERENCES "public"."sale_order"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_order_event" ADD CONSTRAINT "sale_order_event_workshop_id_person_id_person_workshop_id_id_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_order_event" ADD CONSTRAINT "sale_order_event_workshop_id_instrument_id_instrument_workshop_id_id_fk" FOREIGN KEY ("workshop_id","instrument_id") REFERENCES "public"."instrument"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_order_event" ADD CONSTRAINT "sale_order_event_workshop_id_corrects_sale_order_event_workshop_id_id_fk" FOREIGN KEY ("workshop_id","corrects") REFERENCES "public"."sale_order_event"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_goods" ADD CONSTRAINT "sale_goods_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_goods" ADD CONSTRAINT "sale_goods_workshop_id_order_id_sale_order_workshop_id_id_fk" FOREIGN KEY ("workshop_id","order_id") REFERENCES "public"."sale_order"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_line" ADD CONSTRAINT "sale_line_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_line" ADD CONSTRAINT "sale_line_workshop_id_order_id_sale_order_workshop_id_id_fk" FOREIGN KEY ("workshop_id","order_id") REFERENCES "public"."sale_order"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_order" ADD CONSTRAINT "sale_order_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "packed_piece" ADD CONSTRAINT "packed_piece_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "packed_piece" ADD CONSTRAINT "packed_piece_workshop_id_packing_id_packing_workshop_id_id_fk" FOREIGN KEY ("workshop_id","packing_id") REFERENCES "public"."packing"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "packed_piece" ADD CONSTRAINT "packed_piece_workshop_id_batch_id_batch_workshop_id_id_fk" FOREIGN KEY ("workshop_id","batch_id") REFERENCES "public"."batch"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "packing" ADD CONSTRAINT "packing_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "product_set" ADD CONSTRAINT "product_set_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "label_sheet" ADD CONSTRAINT "label_sheet_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "labelling" ADD CONSTRAINT "labelling_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier_sheet" ADD CONSTRAINT "supplier_sheet_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pack" ADD CONSTRAINT "pack_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sale_order_event_by_seq" ON "sale_order_event" USING btree ("workshop_id","order_id","seq");--> statement-breakpoint
CREATE INDEX "sale_order_event_by_corrects" ON "sale_order_event" USING btree ("workshop_id","corrects");--> statement-breakpoint
CREATE INDEX "sale_goods_by_packing" ON "sale_goods" USING btree ("workshop_id","packing_id");--> statement-breakpoint
CREATE INDEX "sale_goods_by_time" ON "sale_goods" USING btree ("workshop_id","at");--> statement-breakpoint
CREATE INDEX "sale_line_lacking" ON "sale_line" USING btree ("workshop_id","sellable_id") WHERE lacking > 0;--> statement-breakpoint
CREATE INDEX "sale_order_by_stage" ON "sale_order" USING btree ("workshop_id","stage","wanted_on");--> statement-breakpoint
CREATE INDEX "packed_piece_by_batch" ON "packed_piece" USING btree ("workshop_id","batch_id");--> statement-breakpoint
CREATE INDEX "packing_there" ON "packing" USING btree ("workshop_id","sellable_id","poured_at") WHERE packs > gone and not undone;--> statement-breakpoint
CREATE INDEX "packing_by_time" ON "packing" USING btree ("workshop_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "product_set_name" ON "product_set" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE INDEX "supplier_sheet_by_material" ON "supplier_sheet" USING btree ("workshop_id","material_id","on_day","at");--> statement-breakpoint
CREATE UNIQUE INDEX "pack_name" ON "pack" USING btree ("workshop_id",lower("name"));--> statement-breakpoint
CREATE INDEX "batch_loose" ON "batch" USING btree ("workshop_id","poured_at") WHERE loose > 0;
--> statement-breakpoint
CREATE FUNCTION refuse_order_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- A whole workshop may be removed; a single entry may not be changed or taken out.
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'sale_order_event is append-only: write a correcting event instead';
END
$$;
--> statement-breakpoint
CREATE TRIGGER sale_order_event_append_only BEFORE UPDATE OR DELETE ON "sale_order_event" FOR EACH ROW EXECUTE FUNCTION refuse_order_change();
