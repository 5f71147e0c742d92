CREATE TABLE "class_day" (
	"class_id" integer NOT NULL,
	"held_on" date NOT NULL,
	"begins_at" text NOT NULL,
	CONSTRAINT "class_day_class_id_held_on_begins_at_pk" PRIMARY KEY("class_id","held_on","begins_at")
);
--> statement-breakpoint
CREATE TABLE "waiting" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "waiting_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"class_id" integer NOT NULL,
	"name" text NOT NULL,
	"contact" text DEFAULT '' NOT NULL,
	"customer_id" integer,
	"asked_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "customer" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "customer_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"name" text NOT NULL,
	"contact" text DEFAULT '' NOT NULL,
	"wrist_mm" double precision,
	"neck_mm" double precision,
	"finger_mm" double precision,
	"left_handed" boolean DEFAULT false NOT NULL,
	"allergies" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"added_by" integer NOT NULL,
	CONSTRAINT "customer_measures" CHECK (coalesce("customer"."wrist_mm" > 0, true) and coalesce("customer"."neck_mm" > 0, true) and coalesce("customer"."finger_mm" > 0, true))
);
--> statement-breakpoint
ALTER TABLE "customer_order" DROP CONSTRAINT "customer_order_figures";--> statement-breakpoint
ALTER TABLE "booking" ADD COLUMN "contact" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "booking" ADD COLUMN "customer_id" integer;--> statement-breakpoint
ALTER TABLE "booking" ADD COLUMN "paid" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "booking" ADD COLUMN "absent" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "customer_id" integer;--> statement-breakpoint
ALTER TABLE "customer_order" ADD COLUMN "paid" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sale" ADD COLUMN "customer_id" integer;--> statement-breakpoint
ALTER TABLE "class_day" ADD CONSTRAINT "class_day_class_id_class_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."class"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "waiting" ADD CONSTRAINT "waiting_class_id_class_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."class"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "waiting" ADD CONSTRAINT "waiting_customer_id_customer_id_fk" FOREIGN KEY ("customer_id") REFERENCES "public"."customer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer" ADD CONSTRAINT "customer_added_by_person_id_fk" FOREIGN KEY ("added_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "class_day_on" ON "class_day" USING btree ("held_on");--> statement-breakpoint
CREATE INDEX "waiting_for" ON "waiting" USING btree ("class_id","id");--> statement-breakpoint
CREATE INDEX "customer_by_name" ON "customer" USING btree ("name","id");--> statement-breakpoint
ALTER TABLE "booking" ADD CONSTRAINT "booking_customer_id_customer_id_fk" FOREIGN KEY ("customer_id") REFERENCES "public"."customer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_customer_id_customer_id_fk" FOREIGN KEY ("customer_id") REFERENCES "public"."customer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale" ADD CONSTRAINT "sale_customer_id_customer_id_fk" FOREIGN KEY ("customer_id") REFERENCES "public"."customer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "booking_of" ON "booking" USING btree ("customer_id") WHERE customer_id is not null;--> statement-breakpoint
CREATE INDEX "customer_order_of" ON "customer_order" USING btree ("customer_id") WHERE customer_id is not null;--> statement-breakpoint
CREATE INDEX "sale_to" ON "sale" USING btree ("customer_id") WHERE customer_id is not null;--> statement-breakpoint
ALTER TABLE "booking" ADD CONSTRAINT "booking_paid" CHECK ("booking"."paid" >= 0);--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_figures" CHECK ("customer_order"."kits" between 1 and 100 and "customer_order"."price" >= 0 and "customer_order"."paid" >= 0 and ("customer_order"."worn" is null) = ("customer_order"."measure_mm" is null));--> statement-breakpoint
-- To whom something was sold may be forgotten; what was sold, when and by whom may not.
drop trigger sale_only_added_to on sale;
--> statement-breakpoint
create trigger sale_only_added_to before update of id, at, made_by on sale execute function only_added_to();
--> statement-breakpoint
create trigger sale_not_deleted before delete or truncate on sale execute function only_added_to();
--> statement-breakpoint
create trigger customer_tells after insert or update or delete on customer for each statement execute function tell_changes('customers');
--> statement-breakpoint
create trigger waiting_tells after insert or update or delete on waiting for each statement execute function tell_changes('classes');
--> statement-breakpoint
create trigger class_day_tells after insert or update or delete on class_day for each statement execute function tell_changes('classes');
