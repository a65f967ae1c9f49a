-- A batch that was recorded in one act, its entries with its start, is undone like a start that nothing followed: whole, and by
-- `undo_start` alone, which names it in a setting of its transaction.
CREATE OR REPLACE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- A whole workshop may be removed, and a batch be undone; a single entry may not be changed or taken out.
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  IF TG_OP = 'DELETE' AND current_setting('hearth.undone_batch', true) = OLD.batch_id::text
    AND NOT EXISTS (SELECT 1 FROM batch_event WHERE workshop_id = OLD.workshop_id AND batch_id = OLD.batch_id AND arrived_at <> OLD.arrived_at) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'batch_event is append-only: write a correcting event instead';
END
$$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION undo_start(workshop uuid, undone uuid) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
BEGIN
  IF workshop IS DISTINCT FROM nullif(current_setting('hearth.workshop', true), '')::uuid THEN
    RETURN false;
  END IF;
  PERFORM 1 FROM batch WHERE workshop_id = workshop AND id = undone FOR UPDATE;
  IF NOT FOUND OR (SELECT count(DISTINCT arrived_at) FROM batch_event WHERE workshop_id = workshop AND batch_id = undone) > 1 THEN
    RETURN false;
  END IF;
  PERFORM set_config('hearth.undone_batch', undone::text, true);
  DELETE FROM batch_event WHERE workshop_id = workshop AND batch_id = undone;
  DELETE FROM batch WHERE workshop_id = workshop AND id = undone;
  PERFORM set_config('hearth.undone_batch', '', true);
  RETURN true;
END
$$;
