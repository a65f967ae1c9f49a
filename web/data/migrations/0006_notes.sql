CREATE TABLE "colour" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"recipe" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"gone" boolean DEFAULT false NOT NULL,
	CONSTRAINT "colour_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "note" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"of_id" uuid NOT NULL,
	"text" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"person_id" uuid,
	"gone" boolean DEFAULT false NOT NULL,
	CONSTRAINT "note_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
CREATE TABLE "picture" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"note_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"jpeg" "bytea" NOT NULL,
	CONSTRAINT "picture_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "colour" ADD CONSTRAINT "colour_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "note" ADD CONSTRAINT "note_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_workshop_id_note_id_note_workshop_id_id_fk" FOREIGN KEY ("workshop_id","note_id") REFERENCES "public"."note"("workshop_id","id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "note_by_of" ON "note" USING btree ("workshop_id","of_id","at");--> statement-breakpoint
CREATE INDEX "picture_by_note" ON "picture" USING btree ("workshop_id","note_id");