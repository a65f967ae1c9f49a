CREATE TABLE "grading" (
	"workshop_id" uuid PRIMARY KEY NOT NULL,
	"rules" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "outcome_flaw" (
	"workshop_id" uuid NOT NULL,
	"batch_id" uuid NOT NULL,
	"product" text NOT NULL,
	"defect" text NOT NULL,
	"jars" integer NOT NULL,
	CONSTRAINT "outcome_flaw_workshop_id_batch_id_product_defect_pk" PRIMARY KEY("workshop_id","batch_id","product","defect")
);
--> statement-breakpoint
CREATE TABLE "outcome" (
	"workshop_id" uuid NOT NULL,
	"batch_id" uuid NOT NULL,
	"product" text NOT NULL,
	"poured_at" timestamp with time zone NOT NULL,
	"looked" boolean NOT NULL,
	"jars" integer NOT NULL,
	"vessel" text NOT NULL,
	"family" text NOT NULL,
	"wax" text NOT NULL,
	"formula" text NOT NULL,
	"process" text NOT NULL,
	"person_id" uuid,
	"instrument_id" uuid,
	"pour_c" double precision,
	"add_c" double precision,
	"load" double precision,
	"room_c" double precision,
	"stir_minutes" double precision,
	"cure_days" double precision,
	"warmed" text,
	"halves" boolean,
	"pour_side" smallint,
	"add_side" smallint,
	"fill_mg" double precision,
	"planned_mg" integer NOT NULL,
	"record" jsonb NOT NULL,
	"repairs" jsonb DEFAULT '[]'::jsonb NOT NULL,
	CONSTRAINT "outcome_workshop_id_batch_id_product_pk" PRIMARY KEY("workshop_id","batch_id","product")
);
--> statement-breakpoint
CREATE TABLE "own_cause" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"cause" jsonb NOT NULL,
	"gone" boolean DEFAULT false NOT NULL,
	CONSTRAINT "own_cause_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "grading" ADD CONSTRAINT "grading_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outcome_flaw" ADD CONSTRAINT "outcome_flaw_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outcome_flaw" ADD CONSTRAINT "outcome_flaw_workshop_id_batch_id_product_outcome_workshop_id_batch_id_product_fk" FOREIGN KEY ("workshop_id","batch_id","product") REFERENCES "public"."outcome"("workshop_id","batch_id","product") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outcome" ADD CONSTRAINT "outcome_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outcome" ADD CONSTRAINT "outcome_workshop_id_batch_id_batch_workshop_id_id_fk" FOREIGN KEY ("workshop_id","batch_id") REFERENCES "public"."batch"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "own_cause" ADD CONSTRAINT "own_cause_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "outcome_flaw_by_defect" ON "outcome_flaw" USING btree ("workshop_id","defect");--> statement-breakpoint
CREATE INDEX "outcome_by_time" ON "outcome" USING btree ("workshop_id","poured_at");--> statement-breakpoint
CREATE INDEX "batch_event_notes" ON "batch_event" USING btree ("workshop_id","happened_at") WHERE kind = 'note';