ALTER TABLE "class" ADD COLUMN "over_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "over_at" timestamp with time zone;