-- A start is undone in the workshop that the transaction works for, and in no other.
CREATE OR REPLACE FUNCTION undo_start(workshop uuid, undone uuid) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
BEGIN
  IF workshop IS DISTINCT FROM nullif(current_setting('hearth.workshop', true), '')::uuid THEN
    RETURN false;
  END IF;
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
-- Which workshops there are, by name only, for the one machine that needs no sign-in.
CREATE FUNCTION workshop_names() RETURNS TABLE (id uuid, name text) LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
  SELECT w.id, w.name FROM workshop w ORDER BY w.created_at, w.id LIMIT 200
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION workshop_names() FROM PUBLIC;
--> statement-breakpoint
-- Whose calendar a secret address is.
CREATE FUNCTION workshop_of_calendar(secret text) RETURNS uuid LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
  SELECT p.workshop_id FROM planning p WHERE p.calendar_key = secret
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION workshop_of_calendar(text) FROM PUBLIC;
