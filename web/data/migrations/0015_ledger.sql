-- The ledger of stock is worked out anew from the log, at the start that follows: a row for each event in place of one for each batch.
DELETE FROM "stock_use";--> statement-breakpoint
CREATE TABLE "device_session" (
	"workshop_id" uuid NOT NULL,
	"device_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone NOT NULL,
	CONSTRAINT "device_session_workshop_id_device_id_person_id_started_at_pk" PRIMARY KEY("workshop_id","device_id","person_id","started_at")
);
--> statement-breakpoint
ALTER TABLE "stock_use" DROP CONSTRAINT "stock_use_workshop_id_batch_id_material_id_pk";--> statement-breakpoint
ALTER TABLE "packing" ADD COLUMN "oversold" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "wanted" ADD COLUMN "order_id" uuid;--> statement-breakpoint
ALTER TABLE "stock_use" ADD COLUMN "event_id" uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "stock_use" ADD COLUMN "named_id" uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "stock_use" ADD CONSTRAINT "stock_use_workshop_id_event_id_named_id_pk" PRIMARY KEY("workshop_id","event_id","named_id");--> statement-breakpoint
ALTER TABLE "device_session" ADD CONSTRAINT "device_session_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "device_session" ADD CONSTRAINT "device_session_workshop_id_device_id_device_workshop_id_id_fk" FOREIGN KEY ("workshop_id","device_id") REFERENCES "public"."device"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "device_session" ADD CONSTRAINT "device_session_workshop_id_person_id_person_workshop_id_id_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_use" ADD CONSTRAINT "stock_use_workshop_id_event_id_batch_event_workshop_id_id_fk" FOREIGN KEY ("workshop_id","event_id") REFERENCES "public"."batch_event"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
-- Whoever works on a device now has done so since it joined, as far as is known.
INSERT INTO "device_session" SELECT "workshop_id", "id", "person_id", "joined_at", "person_until" FROM "device" d
  WHERE "person_id" IS NOT NULL AND "joined_at" IS NOT NULL AND "person_until" IS NOT NULL
  AND EXISTS (SELECT 1 FROM "person" p WHERE p."workshop_id" = d."workshop_id" AND p."id" = d."person_id");--> statement-breakpoint
CREATE UNIQUE INDEX "wanted_by_order" ON "wanted" USING btree ("workshop_id","order_id","product_id") WHERE order_id is not null;--> statement-breakpoint
CREATE INDEX "stock_use_by_batch" ON "stock_use" USING btree ("workshop_id","batch_id");--> statement-breakpoint
CREATE INDEX "stock_use_by_name" ON "stock_use" USING btree ("workshop_id","named_id");--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_loose_pieces" CHECK (loose >= 0);--> statement-breakpoint
ALTER TABLE "sale_goods" ADD CONSTRAINT "sale_goods_amounts" CHECK (sold >= 0 and given >= 0 and second >= 0 and back >= 0 and "out" >= sold + given + second + back);--> statement-breakpoint
ALTER TABLE "sale_line" ADD CONSTRAINT "sale_line_amounts" CHECK (asked >= 0 and lacking >= 0);--> statement-breakpoint
ALTER TABLE "packed_piece" ADD CONSTRAINT "packed_piece_pieces" CHECK (pieces > 0);--> statement-breakpoint
-- More packs may have gone out than there were: what is wrong stays to be seen, and nothing more goes out of it.
UPDATE "packing" SET "oversold" = greatest(0, "gone" - "packs");--> statement-breakpoint
UPDATE "packing" SET "gone" = greatest(0, "gone");--> statement-breakpoint
ALTER TABLE "packing" ADD CONSTRAINT "packing_gone" CHECK (gone >= 0 and gone <= packs + oversold);--> statement-breakpoint
ALTER TABLE "packing" ADD CONSTRAINT "packing_packs" CHECK (packs > 0 and oversold >= 0);--> statement-breakpoint
ALTER TABLE "wanted" ADD CONSTRAINT "wanted_amounts" CHECK (count > 0 and made >= 0);--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_amount" CHECK (amount >= 0);--> statement-breakpoint
ALTER TABLE "stock_count" ADD CONSTRAINT "stock_count_amount" CHECK (amount >= 0);--> statement-breakpoint
ALTER TABLE "stock_use" ADD CONSTRAINT "stock_use_amount" CHECK (amount > 0);--> statement-breakpoint
CREATE OR REPLACE FUNCTION refuse_order_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  -- A customer's name and address are erased by erase_customer alone; all else of the entry stays.
  IF TG_OP = 'UPDATE' AND current_setting('hearth.erasing', true) = 'on' AND to_jsonb(OLD) - 'payload' = to_jsonb(NEW) - 'payload' THEN
    RETURN NEW;
  END IF;
  RAISE EXCEPTION 'sale_order_event is append-only: write a correcting event instead';
END
$$;
--> statement-breakpoint
-- Erases a customer from an order: name and contact give way to words, in its row, its state and its log. Gives whether there is such an order.
CREATE FUNCTION erase_customer(workshop uuid, erased uuid, words text) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' SET hearth.erasing = 'on' AS $$
BEGIN
  IF workshop IS DISTINCT FROM nullif(current_setting('hearth.workshop', true), '')::uuid THEN
    RETURN false;
  END IF;
  UPDATE sale_order SET name = words,
    plan = plan || jsonb_build_object('name', words, 'whom', ''),
    facts = facts || jsonb_build_object('name', words, 'whom', '')
    WHERE workshop_id = workshop AND id = erased;
  IF NOT FOUND THEN
    RETURN false;
  END IF;
  UPDATE sale_order_event SET payload = CASE kind
      WHEN 'started' THEN jsonb_set(payload, '{plan}', payload -> 'plan' || jsonb_build_object('name', words, 'whom', ''))
      WHEN 'asked' THEN payload || jsonb_build_object('name', words, 'whom', '')
      ELSE jsonb_set(payload, '{text}', to_jsonb('erased with the customer'::text)) END
    WHERE workshop_id = workshop AND order_id = erased AND kind IN ('started', 'asked', 'note');
  RETURN true;
END
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION erase_customer(uuid, uuid, text) FROM PUBLIC;
