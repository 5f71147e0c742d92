CREATE TABLE "pack" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "pack_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"item_id" integer NOT NULL,
	"amount" bigint NOT NULL,
	"price" integer NOT NULL,
	"lead_days" integer DEFAULT 7 NOT NULL,
	CONSTRAINT "pack_amount" UNIQUE("item_id","amount"),
	CONSTRAINT "pack_figures" CHECK ("pack"."amount" > 0 and "pack"."price" >= 0 and "pack"."lead_days" >= 0)
);
--> statement-breakpoint
ALTER TABLE "colourway_choice" ADD COLUMN "counting" text DEFAULT 'all' NOT NULL;--> statement-breakpoint
ALTER TABLE "colourway_version" ADD COLUMN "batch_id" integer;--> statement-breakpoint
ALTER TABLE "pack" ADD CONSTRAINT "pack_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colourway_version" ADD CONSTRAINT "colourway_version_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colourway_choice" ADD CONSTRAINT "colourway_choice_counting" CHECK ("colourway_choice"."counting" in ('all', 'arcs', 'none', 'runs'));