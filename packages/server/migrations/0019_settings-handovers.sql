CREATE TABLE "handover" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "handover_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"order_id" integer NOT NULL,
	"kits" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL,
	CONSTRAINT "handover_kits" CHECK ("handover"."kits" > 0)
);
--> statement-breakpoint
CREATE TABLE "shop_setting" (
	"id" integer PRIMARY KEY NOT NULL,
	"settings" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "handover" ADD CONSTRAINT "handover_order_id_customer_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."customer_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "handover" ADD CONSTRAINT "handover_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "handover_by_order" ON "handover" USING btree ("order_id");--> statement-breakpoint
create trigger handover_tells after insert or delete on handover for each statement execute function tell_changes('orders');
--> statement-breakpoint
create trigger shop_setting_tells after insert or update on shop_setting for each statement execute function tell_changes('settings');
--> statement-breakpoint
create trigger cost_setting_tells after insert or update on cost_setting for each statement execute function tell_changes('settings');
