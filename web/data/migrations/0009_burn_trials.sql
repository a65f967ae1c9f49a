CREATE TABLE "burn_outcome" (
	"workshop_id" uuid NOT NULL,
	"trial_id" uuid NOT NULL,
	"tester" text NOT NULL,
	"option" text NOT NULL,
	"says" text NOT NULL,
	"product_id" uuid,
	"batch_id" uuid,
	"body_id" uuid NOT NULL,
	"vessel" text NOT NULL,
	"width_um" integer NOT NULL,
	"family" text NOT NULL,
	"wax" text NOT NULL,
	"scent" text NOT NULL,
	"load_ppm" double precision NOT NULL,
	"wick_id" uuid,
	"wick_kind" text NOT NULL,
	"wick_size" text NOT NULL,
	"wick_name" text NOT NULL,
	"wicks" integer NOT NULL,
	"half" boolean NOT NULL,
	"sessions" integer NOT NULL,
	"safe" boolean,
	"pool" text NOT NULL,
	"advice" text NOT NULL,
	"grams_per_hour" double precision,
	"decided" text NOT NULL,
	CONSTRAINT "burn_outcome_workshop_id_trial_id_tester_pk" PRIMARY KEY("workshop_id","trial_id","tester")
);
--> statement-breakpoint
CREATE TABLE "trial_event" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"trial_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"happened_at" timestamp with time zone NOT NULL,
	"arrived_at" timestamp with time zone NOT NULL,
	"person_id" uuid,
	"instrument_id" uuid,
	"corrects" uuid,
	"device_at" timestamp with time zone,
	"v" integer DEFAULT 1 NOT NULL,
	"payload" jsonb NOT NULL,
	"seq" bigint GENERATED ALWAYS AS IDENTITY (sequence name "trial_event_seq_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	CONSTRAINT "trial_event_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "trial" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"stage" text NOT NULL,
	"plan" jsonb NOT NULL,
	"facts" jsonb NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"last_at" timestamp with time zone NOT NULL,
	"hands_from" timestamp with time zone,
	CONSTRAINT "trial_workshop_id_id_pk" PRIMARY KEY("workshop_id","id"),
	CONSTRAINT "trial_number" UNIQUE("workshop_id","number")
);
--> statement-breakpoint
ALTER TABLE "burn_outcome" ADD CONSTRAINT "burn_outcome_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "burn_outcome" ADD CONSTRAINT "burn_outcome_workshop_id_trial_id_trial_workshop_id_id_fk" FOREIGN KEY ("workshop_id","trial_id") REFERENCES "public"."trial"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial_event" ADD CONSTRAINT "trial_event_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial_event" ADD CONSTRAINT "trial_event_workshop_id_trial_id_trial_workshop_id_id_fk" FOREIGN KEY ("workshop_id","trial_id") REFERENCES "public"."trial"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial_event" ADD CONSTRAINT "trial_event_workshop_id_person_id_person_workshop_id_id_fk" FOREIGN KEY ("workshop_id","person_id") REFERENCES "public"."person"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial_event" ADD CONSTRAINT "trial_event_workshop_id_instrument_id_instrument_workshop_id_id_fk" FOREIGN KEY ("workshop_id","instrument_id") REFERENCES "public"."instrument"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial_event" ADD CONSTRAINT "trial_event_workshop_id_corrects_trial_event_workshop_id_id_fk" FOREIGN KEY ("workshop_id","corrects") REFERENCES "public"."trial_event"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trial" ADD CONSTRAINT "trial_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "burn_outcome_by_body" ON "burn_outcome" USING btree ("workshop_id","body_id");--> statement-breakpoint
CREATE INDEX "burn_outcome_by_product" ON "burn_outcome" USING btree ("workshop_id","product_id");--> statement-breakpoint
CREATE INDEX "trial_event_by_seq" ON "trial_event" USING btree ("workshop_id","trial_id","seq");--> statement-breakpoint
CREATE INDEX "trial_event_by_corrects" ON "trial_event" USING btree ("workshop_id","corrects");--> statement-breakpoint
CREATE INDEX "trial_by_stage" ON "trial" USING btree ("workshop_id","stage","started_at","id");
--> statement-breakpoint
CREATE FUNCTION refuse_trial_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  -- A whole workshop may be removed; a single entry may not be changed or taken out.
  IF TG_OP = 'DELETE' AND NOT EXISTS (SELECT 1 FROM workshop WHERE id = OLD.workshop_id) THEN
    RETURN OLD;
  END IF;
  RAISE EXCEPTION 'trial_event is append-only: write a correcting event instead';
END
$$;
--> statement-breakpoint
CREATE TRIGGER trial_event_append_only BEFORE UPDATE OR DELETE ON trial_event FOR EACH ROW EXECUTE FUNCTION refuse_trial_change();
