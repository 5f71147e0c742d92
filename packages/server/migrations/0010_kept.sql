ALTER TABLE "batch" ADD COLUMN "kept" boolean DEFAULT false NOT NULL;
--> statement-breakpoint
UPDATE "batch" SET "kept" = true WHERE "id" IN (SELECT "batch_id" FROM "class" UNION SELECT "batch_id" FROM "customer_order");
