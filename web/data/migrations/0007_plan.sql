CREATE TABLE "day_plan" (
	"workshop_id" uuid NOT NULL,
	"on_day" date NOT NULL,
	"data" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "day_plan_workshop_id_on_day_pk" PRIMARY KEY("workshop_id","on_day")
);
--> statement-breakpoint
CREATE TABLE "planning" (
	"workshop_id" uuid NOT NULL,
	"settings" jsonb NOT NULL,
	"calendar_key" text,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "planning_workshop_id_pk" PRIMARY KEY("workshop_id")
);
--> statement-breakpoint
CREATE TABLE "wanted" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"product_id" uuid NOT NULL,
	"count" integer NOT NULL,
	"made" integer DEFAULT 0 NOT NULL,
	"wanted_on" date,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"gone" boolean DEFAULT false NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "wanted_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "day_plan" ADD CONSTRAINT "day_plan_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "planning" ADD CONSTRAINT "planning_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wanted" ADD CONSTRAINT "wanted_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wanted" ADD CONSTRAINT "wanted_workshop_id_product_id_product_workshop_id_id_fk" FOREIGN KEY ("workshop_id","product_id") REFERENCES "public"."product"("workshop_id","id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "wanted_by_day" ON "wanted" USING btree ("workshop_id","gone","wanted_on");