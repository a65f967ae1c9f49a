CREATE TABLE "note_import" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"file" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" uuid,
	"batches" integer NOT NULL,
	"trials" integer NOT NULL,
	"formulas" integer NOT NULL,
	"created" jsonb NOT NULL,
	"undone_at" timestamp with time zone,
	CONSTRAINT "note_import_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "outcome" ALTER COLUMN "process" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "note_import_id" uuid;--> statement-breakpoint
ALTER TABLE "trial" ADD COLUMN "note_import_id" uuid;--> statement-breakpoint
ALTER TABLE "note_import" ADD CONSTRAINT "note_import_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "batch_by_import" ON "batch" USING btree ("workshop_id","note_import_id") WHERE note_import_id is not null;--> statement-breakpoint
CREATE INDEX "outcome_by_product" ON "outcome" USING btree ("workshop_id","product","poured_at");--> statement-breakpoint
-- What came with a notebook is undone as one, by `undo_note_import` alone, which names the import in a setting of its transaction.
-- A log with an entry that was added later stays, and then the whole import does.
CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- A whole workshop may be removed, and a batch be undone; a single entry may not be changed or taken out.
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  IF TG_OP = 'DELETE' AND (
      current_setting('hearth.undone_batch', true) = OLD.batch_id::text
      OR EXISTS (SELECT 1 FROM batch WHERE workshop_id = OLD.workshop_id AND id = OLD.batch_id
        AND note_import_id = nullif(current_setting('hearth.undone_import', true), '')::uuid)
    )
    AND NOT EXISTS (SELECT 1 FROM batch_event WHERE workshop_id = OLD.workshop_id AND batch_id = OLD.batch_id AND arrived_at <> OLD.arrived_at) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'batch_event is append-only: write a correcting event instead';
END
$$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION refuse_trial_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- A whole workshop may be removed, and an import of notes be undone; a single entry may not be changed or taken out.
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  IF TG_OP = 'DELETE'
    AND EXISTS (SELECT 1 FROM trial WHERE workshop_id = OLD.workshop_id AND id = OLD.trial_id
      AND note_import_id = nullif(current_setting('hearth.undone_import', true), '')::uuid)
    AND NOT EXISTS (SELECT 1 FROM trial_event WHERE workshop_id = OLD.workshop_id AND trial_id = OLD.trial_id AND arrived_at <> OLD.arrived_at) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'trial_event is append-only: write a correcting event instead';
END
$$;
--> statement-breakpoint
-- Removes every batch and trial of an import. Returns how many of them stand in the way, with later entries or burned in another trial; then nothing is removed.
CREATE FUNCTION undo_note_import(workshop uuid, undone uuid) RETURNS integer LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
DECLARE
  in_the_way integer;
BEGIN
  IF workshop IS DISTINCT FROM nullif(current_setting('hearth.workshop', true), '')::uuid THEN
    RETURN -1;
  END IF;
  PERFORM 1 FROM batch WHERE workshop_id = workshop AND note_import_id = undone FOR UPDATE;
  PERFORM 1 FROM trial WHERE workshop_id = workshop AND note_import_id = undone FOR UPDATE;
  SELECT
    (SELECT count(*) FROM batch b WHERE b.workshop_id = workshop AND b.note_import_id = undone AND (
      (SELECT count(DISTINCT arrived_at) FROM batch_event e WHERE e.workshop_id = workshop AND e.batch_id = b.id) > 1
      OR EXISTS (SELECT 1 FROM burn_outcome o JOIN trial t ON t.workshop_id = o.workshop_id AND t.id = o.trial_id
        WHERE o.workshop_id = workshop AND o.batch_id = b.id AND t.note_import_id IS DISTINCT FROM undone)))
    + (SELECT count(*) FROM trial t WHERE t.workshop_id = workshop AND t.note_import_id = undone
      AND (SELECT count(DISTINCT arrived_at) FROM trial_event e WHERE e.workshop_id = workshop AND e.trial_id = t.id) > 1)
    INTO in_the_way;
  IF in_the_way > 0 THEN
    RETURN in_the_way;
  END IF;
  PERFORM set_config('hearth.undone_import', undone::text, true);
  DELETE FROM trial_event WHERE workshop_id = workshop AND trial_id IN (SELECT id FROM trial WHERE workshop_id = workshop AND note_import_id = undone);
  DELETE FROM trial WHERE workshop_id = workshop AND note_import_id = undone;
  DELETE FROM batch_event WHERE workshop_id = workshop AND batch_id IN (SELECT id FROM batch WHERE workshop_id = workshop AND note_import_id = undone);
  DELETE FROM batch WHERE workshop_id = workshop AND note_import_id = undone;
  PERFORM set_config('hearth.undone_import', '', true);
  RETURN 0;
END
$$;
