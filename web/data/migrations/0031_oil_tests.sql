CREATE TABLE "oil_test" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"kind" text NOT NULL,
	"parts" jsonb NOT NULL,
	"on" date NOT NULL,
	"verdict" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"deleted" boolean DEFAULT false NOT NULL,
	CONSTRAINT "oil_test_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "oil_test" ADD CONSTRAINT "oil_test_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;