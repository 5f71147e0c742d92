ALTER TABLE "sale_line" DROP CONSTRAINT "sale_line_figures";--> statement-breakpoint
ALTER TABLE "sale_line" ADD COLUMN "tax" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sale_line" ADD CONSTRAINT "sale_line_figures" CHECK ("sale_line"."quantity" > 0 and "sale_line"."price" >= 0 and "sale_line"."tax" between 0 and "sale_line"."price");