ALTER TABLE "workshop" ADD COLUMN "leaves_at" timestamp with time zone;--> statement-breakpoint
-- Takes out the workshops whose time is over, with all that is in them; gives how many.
CREATE FUNCTION remove_due_workshops(moment timestamptz) RETURNS integer LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
DECLARE
  gone integer;
BEGIN
  DELETE FROM workshop WHERE leaves_at < least(moment, clock_timestamp());
  GET DIAGNOSTICS gone = ROW_COUNT;
  RETURN gone;
END
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION remove_due_workshops(timestamptz) FROM PUBLIC;
