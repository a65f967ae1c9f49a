ALTER TABLE "stock_use" DROP CONSTRAINT "stock_use_workshop_id_event_id_batch_event_workshop_id_id_fk";
--> statement-breakpoint
ALTER TABLE "stock_use" ALTER COLUMN "batch_id" DROP NOT NULL;