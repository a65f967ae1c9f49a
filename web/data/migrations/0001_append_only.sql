CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- A whole workshop may be removed; a single event may not be changed or taken out.
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'batch_event is append-only: write a correcting event instead';
END
$$;
--> statement-breakpoint
CREATE TRIGGER batch_event_append_only BEFORE UPDATE OR DELETE ON batch_event FOR EACH ROW EXECUTE FUNCTION refuse_change();
