CREATE TABLE "door_credential" (
	"id" text PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "door_recovery" (
	"user_id" text NOT NULL,
	"hash" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "door_recovery_user_id_hash_pk" PRIMARY KEY("user_id","hash")
);
--> statement-breakpoint
CREATE TABLE "door_second_factor" (
	"id" text PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"secret" text NOT NULL,
	"backup_codes" text NOT NULL,
	"verified" boolean DEFAULT true,
	"failed_verification_count" integer DEFAULT 0,
	"locked_until" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "door_session" (
	"id" text PRIMARY KEY NOT NULL,
	"user_id" text NOT NULL,
	"token" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	CONSTRAINT "door_session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "door_try" (
	"key" varchar(255) PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "door_user" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"two_factor_enabled" boolean DEFAULT false,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "door_verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "audit" (
	"workshop_id" uuid NOT NULL,
	"seq" bigint NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" uuid,
	"through" text NOT NULL,
	"area" text NOT NULL,
	"what" text NOT NULL,
	"detail" jsonb,
	"hash" text NOT NULL,
	CONSTRAINT "audit_workshop_id_seq_pk" PRIMARY KEY("workshop_id","seq")
);
--> statement-breakpoint
CREATE TABLE "device" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"code_hash" text,
	"code_until" timestamp with time zone,
	"token_hash" text,
	"joined_at" timestamp with time zone,
	"seen_at" timestamp with time zone,
	"cut_at" timestamp with time zone,
	"person_id" uuid,
	"person_until" timestamp with time zone,
	CONSTRAINT "device_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "invitation" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"role" text NOT NULL,
	"hash" text NOT NULL,
	"until" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	CONSTRAINT "invitation_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "member" (
	"workshop_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"role" text NOT NULL,
	"account_id" text,
	"pin_hash" text,
	CONSTRAINT "member_workshop_id_person_id_pk" PRIMARY KEY("workshop_id","person_id")
);
--> statement-breakpoint
ALTER TABLE "door_credential" ADD CONSTRAINT "door_credential_user_id_door_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."door_user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_recovery" ADD CONSTRAINT "door_recovery_user_id_door_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."door_user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_second_factor" ADD CONSTRAINT "door_second_factor_user_id_door_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."door_user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_session" ADD CONSTRAINT "door_session_user_id_door_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."door_user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "audit" ADD CONSTRAINT "audit_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "device" ADD CONSTRAINT "device_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_person" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "member" ADD CONSTRAINT "member_person" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "door_user_email" ON "door_user" USING btree ("email");--> statement-breakpoint
CREATE INDEX "device_by_code" ON "device" USING btree ("code_hash");--> statement-breakpoint
CREATE INDEX "member_by_account" ON "member" USING btree ("account_id");--> statement-breakpoint
-- Where an account is a member. Asked at the door, before it is known in which workshop somebody works.
CREATE FUNCTION workshops_of_account(account text) RETURNS TABLE (id uuid, name text, role text) LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
  SELECT w.id, w.name, m.role FROM member m JOIN workshop w ON w.id = m.workshop_id WHERE m.account_id = account ORDER BY w.created_at, w.id LIMIT 200
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION workshops_of_account(text) FROM PUBLIC;
--> statement-breakpoint
-- Which workshop asked a device in with a code that still holds, by the code's hash.
CREATE FUNCTION workshop_of_code(hash text) RETURNS uuid LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
  SELECT d.workshop_id FROM device d WHERE d.code_hash = hash AND d.cut_at IS NULL LIMIT 1
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION workshop_of_code(text) FROM PUBLIC;
--> statement-breakpoint
-- Workshops that nobody owns by an account yet: who makes the first account of a machine owns them.
CREATE FUNCTION workshops_without_owner() RETURNS TABLE (id uuid) LANGUAGE sql STABLE SECURITY DEFINER SET search_path = public, pg_temp SET hearth.everything = 'on' AS $$
  SELECT w.id FROM workshop w WHERE NOT EXISTS (SELECT 1 FROM member m WHERE m.workshop_id = w.id AND m.account_id IS NOT NULL) LIMIT 200
$$;
--> statement-breakpoint
REVOKE ALL ON FUNCTION workshops_without_owner() FROM PUBLIC;
--> statement-breakpoint
CREATE FUNCTION refuse_audit_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- A whole workshop may go, and its trail with it.
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'the trail is append-only';
END
$$;
--> statement-breakpoint
CREATE TRIGGER audit_append_only BEFORE UPDATE OR DELETE ON audit FOR EACH ROW EXECUTE FUNCTION refuse_audit_change();
--> statement-breakpoint
-- Writes down who changed a row, from what to what: in the transaction of the change itself, and not by the program's own hand. Each row
-- carries a hash over itself and the one before it. What the owner of the tables loads or brings up leaves no trail.
CREATE FUNCTION keep_trail() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
DECLARE
  was jsonb := CASE WHEN TG_OP <> 'INSERT' THEN to_jsonb(OLD) ELSE '{}' END;
  now_is jsonb := CASE WHEN TG_OP <> 'DELETE' THEN to_jsonb(NEW) ELSE '{}' END;
  both_are jsonb := was || now_is;
  shop uuid := coalesce(both_are ->> 'workshop_id', both_are ->> 'id')::uuid;
  changed jsonb := '{}';
  one text;
  said jsonb;
  last_seq bigint;
  last_hash text;
  moment timestamptz := clock_timestamp();
  actor uuid := nullif(current_setting('hearth.person', true), '')::uuid;
  by_what text := coalesce(nullif(current_setting('hearth.through', true), ''), 'the database');
BEGIN
  IF current_setting('hearth.everything', true) = 'on' THEN
    RETURN NULL;
  END IF;
  -- The workshop itself goes, and its trail with it.
  IF TG_OP = 'DELETE' AND (TG_TABLE_NAME = 'workshop' OR NOT EXISTS (SELECT 1 FROM workshop WHERE id = shop)) THEN
    RETURN NULL;
  END IF;
  FOR one IN SELECT jsonb_object_keys(both_are) LOOP
    IF one NOT IN ('workshop_id', 'id', 'version', 'seen_at', 'person_until') AND was -> one IS DISTINCT FROM now_is -> one THEN
      changed := changed || jsonb_build_object(one, CASE
        WHEN one IN ('pin_hash', 'token_hash', 'code_hash', 'hash', 'calendar_key') THEN '["…", "…"]'::jsonb
        ELSE jsonb_build_array(left(was ->> one, 2000), left(now_is ->> one, 2000)) END);
    END IF;
  END LOOP;
  IF changed = '{}' THEN
    RETURN NULL;
  END IF;
  said := jsonb_build_object('table', TG_TABLE_NAME, 'id', coalesce(both_are ->> 'id', both_are ->> 'person_id'), 'name', both_are ->> 'name', 'changed', changed);
  PERFORM pg_advisory_xact_lock(hashtextextended('hearth trail ' || shop, 0));
  SELECT a.seq, a.hash INTO last_seq, last_hash FROM audit a WHERE a.workshop_id = shop ORDER BY a.seq DESC LIMIT 1;
  last_seq := coalesce(last_seq, 0) + 1;
  INSERT INTO audit (workshop_id, seq, at, person_id, through, area, what, detail, hash)
  VALUES (shop, last_seq, moment, actor, by_what, TG_ARGV[0], lower(TG_OP), said, trail_hash(last_hash, shop, last_seq, moment, actor, by_what, TG_ARGV[0], lower(TG_OP), said));
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE FUNCTION trail_hash(before text, shop uuid, seq bigint, at timestamptz, person uuid, through text, area text, what text, detail jsonb) RETURNS text LANGUAGE sql STABLE AS $$
  SELECT encode(sha256(convert_to(concat_ws('|', coalesce(before, ''), shop, seq, extract(epoch FROM at), coalesce(person::text, ''), through, area, what, detail), 'UTF8')), 'hex')
$$;
--> statement-breakpoint
-- Rows of the trail that do not follow from the one before: something was changed, put in between or taken out.
CREATE FUNCTION trail_gaps(shop uuid) RETURNS TABLE (seq bigint) LANGUAGE sql STABLE AS $$
  SELECT t.seq FROM (
    SELECT a.*, lag(a.hash) OVER w AS before, coalesce(lag(a.seq) OVER w, 0) AS place FROM audit a WHERE a.workshop_id = shop WINDOW w AS (ORDER BY a.seq)
  ) t WHERE t.place <> t.seq - 1 OR t.hash <> trail_hash(t.before, t.workshop_id, t.seq, t.at, t.person_id, t.through, t.area, t.what, t.detail) ORDER BY t.seq
$$;
--> statement-breakpoint
DO $$
DECLARE
  one record;
BEGIN
  FOR one IN SELECT * FROM (VALUES
    ('wax', 'shelf'), ('fragrance', 'shelf'), ('dye', 'shelf'), ('additive', 'shelf'), ('wick', 'shelf'), ('vessel', 'shelf'), ('mould', 'shelf'),
    ('pack', 'shelf'), ('instrument', 'shelf'), ('lot', 'shelf'), ('stock_count', 'shelf'), ('supplier_sheet', 'shelf'),
    ('formula', 'formulas'), ('formula_version', 'formulas'), ('process', 'formulas'), ('process_version', 'formulas'), ('colour', 'formulas'),
    ('product', 'products'), ('product_set', 'products'), ('label_sheet', 'labels'), ('labelling', 'labels'), ('grading', 'findings'),
    ('person', 'people'), ('member', 'people'), ('invitation', 'people'), ('device', 'devices'), ('workshop', 'people')
  ) AS t (name, area) LOOP
    EXECUTE format('CREATE TRIGGER keep_trail AFTER INSERT OR UPDATE OR DELETE ON %I FOR EACH ROW EXECUTE FUNCTION keep_trail(%L)', one.name, one.area);
  END LOOP;
END
$$;
