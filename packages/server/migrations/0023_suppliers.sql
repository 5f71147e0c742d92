CREATE TABLE "supplier" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "supplier_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	"contact" text DEFAULT '' NOT NULL,
	"lead_days" integer,
	"min_order" integer DEFAULT 0 NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "supplier_name_unique" UNIQUE("name"),
	CONSTRAINT "supplier_figures" CHECK (coalesce("supplier"."lead_days" >= 0, true) and "supplier"."min_order" >= 0)
);
--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "selling_price" integer;--> statement-breakpoint
ALTER TABLE "pack" ADD COLUMN "priced_on" date DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_selling_price" CHECK (coalesce("item"."selling_price" >= 0, true));--> statement-breakpoint
create trigger supplier_tells after insert or update or delete on supplier for each statement execute function tell_changes('buy-list');
