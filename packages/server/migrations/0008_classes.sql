CREATE TABLE "kept_bill" (
	"digest" text PRIMARY KEY NOT NULL,
	"bill" jsonb NOT NULL,
	"troubles" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "booking" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "booking_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"class_id" integer NOT NULL,
	"seat" integer NOT NULL,
	"name" text NOT NULL,
	"offer" integer NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	CONSTRAINT "booking_seat" UNIQUE("class_id","seat"),
	CONSTRAINT "booking_seat_from_1" CHECK ("booking"."seat" >= 1)
);
--> statement-breakpoint
CREATE TABLE "class_offer" (
	"class_id" integer NOT NULL,
	"position" integer NOT NULL,
	"size" text NOT NULL,
	"colourway_version_id" integer NOT NULL,
	CONSTRAINT "class_offer_class_id_position_pk" PRIMARY KEY("class_id","position")
);
--> statement-breakpoint
CREATE TABLE "class" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "class_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"title" text NOT NULL,
	"held_on" date NOT NULL,
	"begins_at" text NOT NULL,
	"minutes" integer NOT NULL,
	"place" text NOT NULL,
	"seats" integer NOT NULL,
	"teacher_id" integer NOT NULL,
	"pattern_version_id" integer NOT NULL,
	"spare_kits" integer DEFAULT 0 NOT NULL,
	"price" integer DEFAULT 0 NOT NULL,
	"state" text DEFAULT 'offered' NOT NULL,
	"batch_id" integer,
	"walk_step" integer DEFAULT 0 NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL,
	CONSTRAINT "class_state" CHECK ("class"."state" in ('offered', 'taught', 'cancelled')),
	CONSTRAINT "class_figures" CHECK ("class"."seats" between 1 and 200 and "class"."minutes" between 15 and 6000 and "class"."spare_kits" between 0 and 200 and "class"."price" >= 0)
);
--> statement-breakpoint
CREATE TABLE "customer_order" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "customer_order_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"customer" text NOT NULL,
	"worn" text,
	"measure_mm" double precision,
	"pattern_version_id" integer NOT NULL,
	"size" text NOT NULL,
	"colourway_version_id" integer NOT NULL,
	"kits" integer DEFAULT 1 NOT NULL,
	"wanted_on" date NOT NULL,
	"price" integer DEFAULT 0 NOT NULL,
	"promised" text DEFAULT '' NOT NULL,
	"state" text DEFAULT 'taken' NOT NULL,
	"batch_id" integer,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL,
	CONSTRAINT "customer_order_state" CHECK ("customer_order"."state" in ('taken', 'done', 'cancelled')),
	CONSTRAINT "customer_order_figures" CHECK ("customer_order"."kits" between 1 and 100 and "customer_order"."price" >= 0 and ("customer_order"."worn" is null) = ("customer_order"."measure_mm" is null))
);
--> statement-breakpoint
CREATE TABLE "cost_setting" (
	"id" integer PRIMARY KEY NOT NULL,
	"costs" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "booking" ADD CONSTRAINT "booking_class_id_class_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."class"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "booking" ADD CONSTRAINT "booking_class_id_offer_class_offer_class_id_position_fk" FOREIGN KEY ("class_id","offer") REFERENCES "public"."class_offer"("class_id","position") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "class_offer" ADD CONSTRAINT "class_offer_class_id_class_id_fk" FOREIGN KEY ("class_id") REFERENCES "public"."class"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "class_offer" ADD CONSTRAINT "class_offer_colourway_version_id_colourway_version_id_fk" FOREIGN KEY ("colourway_version_id") REFERENCES "public"."colourway_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "class" ADD CONSTRAINT "class_teacher_id_person_id_fk" FOREIGN KEY ("teacher_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "class" ADD CONSTRAINT "class_pattern_version_id_pattern_version_id_fk" FOREIGN KEY ("pattern_version_id") REFERENCES "public"."pattern_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "class" ADD CONSTRAINT "class_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "class" ADD CONSTRAINT "class_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_pattern_version_id_pattern_version_id_fk" FOREIGN KEY ("pattern_version_id") REFERENCES "public"."pattern_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_colourway_version_id_colourway_version_id_fk" FOREIGN KEY ("colourway_version_id") REFERENCES "public"."colourway_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "customer_order" ADD CONSTRAINT "customer_order_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "class_by_day" ON "class" USING btree ("held_on","id");--> statement-breakpoint
CREATE INDEX "customer_order_by_day" ON "customer_order" USING btree ("wanted_on","id");
--> statement-breakpoint
create trigger class_tells after insert or update on class for each statement execute function tell_changes('classes');
--> statement-breakpoint
create trigger booking_tells after insert or update or delete on booking for each statement execute function tell_changes('classes');
--> statement-breakpoint
create trigger customer_order_tells after insert or update on customer_order for each statement execute function tell_changes('orders');
