-- Fills a workshop that is not here yet from the rows that the transaction put into the temporary table "incoming" (n, name, line), and gives how many
-- there were. `omitted` names columns that are not taken in, by table. Rows get this workshop's id, whatever they say, and leave no trail: theirs comes with
-- them. An older export has no hashes of its trail: they are worked out anew.
CREATE FUNCTION import_workshop(shop uuid, omitted jsonb) RETURNS bigint LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
DECLARE
  waiting text[];
  ready text[];
  one text;
  named text;
  key text;
  total bigint := 0;
  written bigint;
  entry audit%ROWTYPE;
  before text;
BEGIN
  IF shop IS DISTINCT FROM nullif(current_setting('hearth.workshop', true), '')::uuid OR EXISTS (SELECT 1 FROM workshop WHERE id = shop) THEN
    RAISE EXCEPTION 'only a workshop that is not here is imported';
  END IF;
  SELECT array_agg(c.relname::text ORDER BY c.relname) INTO waiting FROM pg_class c
    JOIN pg_attribute a ON a.attrelid = c.oid AND a.attname = CASE WHEN c.relname = 'workshop' THEN 'id' ELSE 'workshop_id' END
    WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'p');
  SELECT i.name INTO named FROM pg_temp.incoming i WHERE i.name IS NULL OR i.name <> ALL (waiting) LIMIT 1;
  IF FOUND THEN
    RAISE EXCEPTION 'it holds rows of “%”, which this version does not know', coalesce(named, '?');
  END IF;
  WHILE cardinality(waiting) > 0 LOOP
    -- First those that others point at.
    SELECT array_agg(w) INTO ready FROM unnest(waiting) w WHERE NOT EXISTS (
      SELECT 1 FROM pg_constraint k WHERE k.contype = 'f' AND k.conrelid = quote_ident(w)::regclass AND k.confrelid <> k.conrelid
        AND k.confrelid IN (SELECT quote_ident(other)::regclass FROM unnest(waiting) other));
    IF ready IS NULL THEN
      RAISE EXCEPTION 'these tables point at each other: %', waiting;
    END IF;
    FOREACH one IN ARRAY ready LOOP
      key := CASE WHEN one = 'workshop' THEN 'id' ELSE 'workshop_id' END;
      SELECT k INTO named FROM (SELECT DISTINCT jsonb_object_keys(i.line -> 'row') AS k FROM pg_temp.incoming i WHERE i.name = one) s
        WHERE NOT EXISTS (SELECT 1 FROM pg_attribute a WHERE a.attrelid = quote_ident(one)::regclass AND a.attname = s.k AND a.attnum > 0 AND NOT a.attisdropped) LIMIT 1;
      IF FOUND THEN
        RAISE EXCEPTION 'its rows of “%” hold “%”, which this version does not know', one, named;
      END IF;
      -- What the database numbers itself it numbers anew, in the order of the old numbers.
      SELECT string_agg(quote_ident(a.attname), ', ' ORDER BY a.attnum) INTO named FROM pg_attribute a
        WHERE a.attrelid = quote_ident(one)::regclass AND a.attnum > 0 AND NOT a.attisdropped AND a.attidentity = '' AND a.attgenerated = ''
          AND NOT coalesce(omitted -> one, '[]') ? a.attname
          AND (a.attname = key OR EXISTS (SELECT 1 FROM pg_temp.incoming i WHERE i.name = one AND i.line -> 'row' ? a.attname));
      IF one = 'audit' AND EXISTS (SELECT 1 FROM pg_temp.incoming i WHERE i.name = one AND NOT i.line -> 'row' ? 'hash') THEN
        before := NULL;
        written := 0;
        FOR entry IN SELECT r.* FROM pg_temp.incoming i, jsonb_populate_record(NULL::audit, (i.line -> 'row') || jsonb_build_object('workshop_id', shop)) r
            WHERE i.name = one ORDER BY r.seq LOOP
          entry.hash := trail_hash(before, shop, entry.seq, entry.at, entry.person_id, entry.through, entry.area, entry.what, entry.detail);
          before := entry.hash;
          INSERT INTO audit SELECT (entry).*;
          written := written + 1;
        END LOOP;
      ELSE
        EXECUTE format(
          'INSERT INTO %1$I (%2$s) SELECT %2$s FROM (SELECT r.*, i.n AS incoming_n, (i.line -> ''row'' ->> ''seq'')::bigint AS incoming_seq FROM pg_temp.incoming i, '
          || 'jsonb_populate_record(NULL::%1$I, (i.line -> ''row'') || jsonb_build_object(%3$L, $1)) r WHERE i.name = %4$L) s ORDER BY incoming_seq NULLS FIRST, incoming_n',
          one, named, key, one) USING shop;
        GET DIAGNOSTICS written = ROW_COUNT;
      END IF;
      total := total + written;
    END LOOP;
    waiting := ARRAY(SELECT w FROM unnest(waiting) w WHERE w <> ALL (ready));
  END LOOP;
  IF NOT EXISTS (SELECT 1 FROM workshop WHERE id = shop) THEN
    RAISE EXCEPTION 'it holds no workshop';
  END IF;
  RETURN total;
END
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION import_workshop(uuid, jsonb) FROM PUBLIC;
