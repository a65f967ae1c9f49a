CREATE TABLE "embed" (
	"workshop_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"name" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"archived" boolean DEFAULT false NOT NULL,
	"material" text NOT NULL,
	"volume_ul" integer NOT NULL,
	"low" bigint,
	"remarks" text DEFAULT '' NOT NULL,
	CONSTRAINT "embed_workshop_id_id_pk" PRIMARY KEY("workshop_id","id")
);
--> statement-breakpoint
ALTER TABLE "product" ADD COLUMN "embeds" jsonb;--> statement-breakpoint
ALTER TABLE "embed" ADD CONSTRAINT "embed_workshop_id_workshop_id_fk" FOREIGN KEY ("workshop_id") REFERENCES "public"."workshop"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "embed_name" ON "embed" USING btree ("workshop_id",lower("name"));