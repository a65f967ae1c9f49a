-- The field's names for tables, columns and functions. Constraints and indexes follow; triggers, rights and row-level security stay with their tables.
ALTER TABLE "door_user" RENAME TO "auth_user";--> statement-breakpoint
ALTER TABLE "door_session" RENAME TO "auth_session";--> statement-breakpoint
ALTER TABLE "door_credential" RENAME TO "auth_credential";--> statement-breakpoint
ALTER TABLE "door_verification" RENAME TO "auth_verification";--> statement-breakpoint
ALTER TABLE "door_second_factor" RENAME TO "auth_second_factor";--> statement-breakpoint
ALTER TABLE "door_recovery" RENAME TO "auth_recovery_code";--> statement-breakpoint
ALTER TABLE "door_try" RENAME TO "auth_attempt";--> statement-breakpoint
ALTER TABLE "audit" RENAME TO "audit_log";--> statement-breakpoint
ALTER TABLE "bin" RENAME TO "trash";--> statement-breakpoint
ALTER TABLE "merged" RENAME TO "item_alias";--> statement-breakpoint
ALTER TABLE "wanted" RENAME TO "demand_line";--> statement-breakpoint
ALTER TABLE "planning" RENAME TO "planning_settings";--> statement-breakpoint
ALTER TABLE "grading" RENAME TO "grading_rule";--> statement-breakpoint
ALTER TABLE "own_cause" RENAME TO "custom_cause";--> statement-breakpoint
ALTER TABLE "batch" RENAME COLUMN "facts" TO "state";--> statement-breakpoint
ALTER TABLE "trial" RENAME COLUMN "facts" TO "state";--> statement-breakpoint
ALTER TABLE "sale_order" RENAME COLUMN "facts" TO "state";--> statement-breakpoint
ALTER TABLE "formula" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "product_set" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "process" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "product" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "wax" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "fragrance" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "dye" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "additive" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "wick" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "vessel" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "pack" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "mould" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "instrument" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "person" RENAME COLUMN "put_away" TO "archived";--> statement-breakpoint
ALTER TABLE "colour" RENAME COLUMN "gone" TO "deleted";--> statement-breakpoint
ALTER TABLE "custom_cause" RENAME COLUMN "gone" TO "deleted";--> statement-breakpoint
ALTER TABLE "supplier_sheet" RENAME COLUMN "gone" TO "deleted";--> statement-breakpoint
ALTER TABLE "label_sheet" RENAME COLUMN "gone" TO "deleted";--> statement-breakpoint
ALTER TABLE "note" RENAME COLUMN "gone" TO "deleted";--> statement-breakpoint
ALTER TABLE "demand_line" RENAME COLUMN "gone" TO "deleted";--> statement-breakpoint
ALTER TABLE "packing" RENAME COLUMN "undone" TO "deleted";--> statement-breakpoint
ALTER TABLE "item_alias" RENAME COLUMN "undone" TO "deleted";--> statement-breakpoint
ALTER TABLE "sale_line" RENAME COLUMN "lacking" TO "shortage";--> statement-breakpoint
ALTER INDEX "sale_line_lacking" RENAME TO "sale_line_shortage";--> statement-breakpoint
UPDATE "trash" SET "rows" = replace("rows"::text, '"putAway":', '"archived":')::jsonb;--> statement-breakpoint
DO $$
DECLARE
  renamed jsonb := '{"door_user": "auth_user", "door_session": "auth_session", "door_credential": "auth_credential", "door_verification": "auth_verification", "door_second_factor": "auth_second_factor", "door_recovery": "auth_recovery_code", "door_try": "auth_attempt", "audit": "audit_log", "bin": "trash", "merged": "item_alias", "wanted": "demand_line", "planning": "planning_settings", "grading": "grading_rule", "own_cause": "custom_cause"}';
  old text;
  one record;
BEGIN
  FOR old IN SELECT jsonb_object_keys(renamed) LOOP
    FOR one IN SELECT k.conname, k.conrelid::regclass AS owner FROM pg_constraint k JOIN pg_class c ON c.oid = k.conrelid
        WHERE k.connamespace = 'public'::regnamespace AND c.relname = renamed ->> old AND k.conname LIKE replace(old, '_', '\_') || '\_%' LOOP
      EXECUTE format('ALTER TABLE %s RENAME CONSTRAINT %I TO %I', one.owner, one.conname, replace((renamed ->> old) || substr(one.conname, length(old) + 1), 'door_user', 'auth_user'));
    END LOOP;
    FOR one IN SELECT i.relname FROM pg_index x JOIN pg_class i ON i.oid = x.indexrelid JOIN pg_class c ON c.oid = x.indrelid
        WHERE c.relnamespace = 'public'::regnamespace AND c.relname = renamed ->> old AND i.relname LIKE replace(old, '_', '\_') || '\_%' LOOP
      EXECUTE format('ALTER INDEX %I RENAME TO %I', one.relname, (renamed ->> old) || substr(one.relname, length(old) + 1));
    END LOOP;
  END LOOP;
END
$$;
--> statement-breakpoint
ALTER FUNCTION keep_trail() RENAME TO write_audit_log;--> statement-breakpoint
ALTER FUNCTION trail_hash(text, uuid, bigint, timestamptz, uuid, text, text, text, jsonb) RENAME TO audit_log_hash;--> statement-breakpoint
ALTER FUNCTION trail_gaps(uuid) RENAME TO audit_log_gaps;--> statement-breakpoint
-- Functions name tables and columns in their text.
DO $$
DECLARE
  one regprocedure;
  body text;
BEGIN
  FOREACH one IN ARRAY ARRAY['write_audit_log()', 'audit_log_gaps(uuid)', 'refuse_audit_change()', 'import_workshop(uuid, jsonb)',
      'workshop_of_calendar(text)', 'erase_customer(uuid, uuid, text)']::regprocedure[] LOOP
    body := pg_get_functiondef(one);
    body := regexp_replace(body, '\maudit\M', 'audit_log', 'g');
    body := regexp_replace(body, '\mtrail_hash\M', 'audit_log_hash', 'g');
    body := regexp_replace(body, '\mfacts\M', 'state', 'g');
    body := regexp_replace(body, 'FROM planning p', 'FROM planning_settings p');
    EXECUTE body;
  END LOOP;
END
$$;
--> statement-breakpoint
-- American spelling, and the field's names for what a candle is poured into, a candle that is tested, and packs that were made at one time.
-- Indexes and constraints follow below; triggers, rights and row-level security stay with their tables.
ALTER TABLE "mould" RENAME TO "mold";--> statement-breakpoint
ALTER TABLE "colour" RENAME TO "color";--> statement-breakpoint
ALTER TABLE "packing" RENAME TO "pack_run";--> statement-breakpoint
ALTER TABLE "dye" RENAME COLUMN "colours" TO "colors";--> statement-breakpoint
ALTER TABLE "product" RENAME COLUMN "body" TO "container";--> statement-breakpoint
ALTER TABLE "product" RENAME COLUMN "body_id" TO "container_id";--> statement-breakpoint
ALTER TABLE "product" RENAME COLUMN "label_body" TO "label_container";--> statement-breakpoint
ALTER TABLE "product" RENAME COLUMN "packing" TO "packaging";--> statement-breakpoint
ALTER TABLE "product_set" RENAME COLUMN "packing" TO "packaging";--> statement-breakpoint
ALTER TABLE "packed_piece" RENAME COLUMN "packing_id" TO "pack_run_id";--> statement-breakpoint
ALTER TABLE "sale_goods" RENAME COLUMN "packing_id" TO "pack_run_id";--> statement-breakpoint
ALTER TABLE "burn_outcome" RENAME COLUMN "tester" TO "test_candle";--> statement-breakpoint
ALTER TABLE "burn_outcome" RENAME COLUMN "option" TO "variant";--> statement-breakpoint
ALTER TABLE "burn_outcome" RENAME COLUMN "body_id" TO "container_id";--> statement-breakpoint
ALTER INDEX "packing_there" RENAME TO "pack_run_in_stock";--> statement-breakpoint
ALTER INDEX "burn_outcome_by_body" RENAME TO "burn_outcome_by_container";--> statement-breakpoint
DO $$
DECLARE
  renamed CONSTANT text[] := ARRAY['mould', 'mold', 'colour', 'color', 'packing', 'pack_run', '_tester_', '_test_candle_'];
  found record;
  new_name text;
BEGIN
  FOR found IN
    SELECT 'constraint' AS what, k.conname AS name, k.conrelid::regclass AS owner FROM pg_constraint k WHERE k.connamespace = 'public'::regnamespace
    UNION ALL
    SELECT 'index', i.relname, NULL FROM pg_class i
      WHERE i.relnamespace = 'public'::regnamespace AND i.relkind IN ('i', 'I') AND NOT EXISTS (SELECT FROM pg_constraint k WHERE k.conindid = i.oid AND k.contype IN ('p', 'u', 'x'))
  LOOP
    new_name := found.name;
    FOR at IN 1 .. array_length(renamed, 1) BY 2 LOOP
      new_name := replace(new_name, renamed[at], renamed[at + 1]);
    END LOOP;
    CONTINUE WHEN new_name = found.name;
    IF found.what = 'constraint' THEN
      EXECUTE format('ALTER TABLE %s RENAME CONSTRAINT %I TO %I', found.owner, found.name, new_name);
    ELSE
      EXECUTE format('ALTER INDEX %I RENAME TO %I', found.name, new_name);
    END IF;
  END LOOP;
END
$$;
--> statement-breakpoint
UPDATE "product" SET "container" = 'mold' WHERE "container" = 'mould';--> statement-breakpoint
UPDATE "mold" SET "kind" = replace("kind", 'mould', 'mold') WHERE "kind" LIKE '%mould%';--> statement-breakpoint
UPDATE "vessel" SET "state" = 'test jar' WHERE "state" = 'tester';--> statement-breakpoint
UPDATE "note" SET "kind" = 'mold' WHERE "kind" = 'mould';--> statement-breakpoint
UPDATE "item_alias" SET "kind" = 'mold' WHERE "kind" = 'mould';--> statement-breakpoint
UPDATE "item_alias" SET "moved" = replace(replace("moved"::text, '"colours":', '"colors":'), '"bodies":', '"containers":')::jsonb;--> statement-breakpoint
UPDATE "trash" SET "kind" = 'mold' WHERE "kind" = 'mould';--> statement-breakpoint
UPDATE "trash" SET "rows" = replace(replace(replace(replace(replace(replace(replace(replace(replace("rows"::text, '"body": "mould"', '"container": "mold"'),
  '"body": "vessel"', '"container": "vessel"'), '"bodyId":', '"containerId":'), '"labelBody":', '"labelContainer":'), '"packing":', '"packaging":'),
  '"colours":', '"colors":'), '"moulds":', '"molds":'), '"state": "tester"', '"state": "test jar"'), ' mould"', ' mold"')::jsonb;
