-- The program may write the log, and take nothing out of it: a start that nothing followed is undone by this function alone.
CREATE FUNCTION undo_start(workshop uuid, undone uuid) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
BEGIN
  PERFORM 1 FROM batch WHERE workshop_id = workshop AND id = undone FOR UPDATE;
  IF NOT FOUND OR (SELECT count(*) FROM batch_event WHERE workshop_id = workshop AND batch_id = undone) > 1 THEN
    RETURN false;
  END IF;
  DELETE FROM batch_event WHERE workshop_id = workshop AND batch_id = undone;
  DELETE FROM batch WHERE workshop_id = workshop AND id = undone;
  RETURN true;
END
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION undo_start(uuid, uuid) FROM PUBLIC;
