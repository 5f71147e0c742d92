CREATE TABLE "sale" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "sale_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"customer" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sale_line" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "sale_line_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"sale_id" integer NOT NULL,
	"item_id" integer,
	"pattern_version_id" integer,
	"name" text NOT NULL,
	"unit" text NOT NULL,
	"quantity" bigint NOT NULL,
	"price" integer NOT NULL,
	CONSTRAINT "sale_line_of_one" CHECK (("sale_line"."item_id" is null) <> ("sale_line"."pattern_version_id" is null)),
	CONSTRAINT "sale_line_figures" CHECK ("sale_line"."quantity" > 0 and "sale_line"."price" >= 0)
);
--> statement-breakpoint
CREATE TABLE "sale_return" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "sale_return_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"line_id" integer NOT NULL,
	"quantity" bigint NOT NULL,
	"refund" integer NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL,
	CONSTRAINT "sale_return_figures" CHECK ("sale_return"."quantity" > 0 and "sale_return"."refund" >= 0)
);
--> statement-breakpoint
ALTER TABLE "move" DROP CONSTRAINT "move_kind";--> statement-breakpoint
ALTER TABLE "person" DROP CONSTRAINT "person_roles";--> statement-breakpoint
ALTER TABLE "move" ADD COLUMN "sale_line_id" integer;--> statement-breakpoint
ALTER TABLE "pattern" ADD COLUMN "tags" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "pattern" ADD COLUMN "season" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "pattern" ADD COLUMN "put_away_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "pattern" ADD COLUMN "thrown_away_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "sale" ADD CONSTRAINT "sale_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_line" ADD CONSTRAINT "sale_line_sale_id_sale_id_fk" FOREIGN KEY ("sale_id") REFERENCES "public"."sale"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_line" ADD CONSTRAINT "sale_line_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_line" ADD CONSTRAINT "sale_line_pattern_version_id_pattern_version_id_fk" FOREIGN KEY ("pattern_version_id") REFERENCES "public"."pattern_version"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_return" ADD CONSTRAINT "sale_return_line_id_sale_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."sale_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sale_return" ADD CONSTRAINT "sale_return_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sale_at" ON "sale" USING btree ("at");--> statement-breakpoint
CREATE INDEX "sale_line_by_sale" ON "sale_line" USING btree ("sale_id");--> statement-breakpoint
CREATE INDEX "sale_line_by_item" ON "sale_line" USING btree ("item_id","id");--> statement-breakpoint
CREATE INDEX "sale_return_by_line" ON "sale_return" USING btree ("line_id");--> statement-breakpoint
CREATE INDEX "sale_return_at" ON "sale_return" USING btree ("at");--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_sale_line_id_sale_line_id_fk" FOREIGN KEY ("sale_line_id") REFERENCES "public"."sale_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "move_sale_line" ON "move" USING btree ("sale_line_id") WHERE sale_line_id is not null;--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_kind" CHECK (case "move"."kind"
        when 'receive' then "move"."on_hand" > 0 and "move"."reserved" = 0
        when 'correction' then "move"."reserved" = 0
        when 'sale' then "move"."on_hand" < 0 and "move"."reserved" = 0
        when 'scrap' then "move"."on_hand" < 0 and "move"."reserved" = 0
        when 'reserve' then "move"."on_hand" = 0 and "move"."reserved" > 0 and "move"."batch_id" is not null
        when 'release' then "move"."on_hand" = 0 and "move"."reserved" < 0 and "move"."batch_id" is not null
        when 'issue' then "move"."on_hand" < 0 and "move"."reserved" <= 0 and "move"."batch_id" is not null
        when 'transfer' then "move"."reserved" = 0
        when 'return' then "move"."on_hand" > 0 and "move"."reserved" = 0 and coalesce("move"."batch_id", "move"."sale_line_id") is not null
        when 'open' then "move"."on_hand" < 0 and "move"."reserved" = 0 and "move"."batch_id" is not null
        when 'reverse' then "move"."reverses" is not null
        else false end);--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_roles" CHECK ("person"."roles" <@ array['owner', 'designer', 'stockroom', 'teacher', 'counter'] and cardinality("person"."roles") > 0);--> statement-breakpoint
create trigger sale_only_added_to before update or delete or truncate on sale execute function only_added_to();
--> statement-breakpoint
create trigger sale_line_only_added_to before update or delete or truncate on sale_line execute function only_added_to();
--> statement-breakpoint
create trigger sale_return_only_added_to before update or delete or truncate on sale_return execute function only_added_to();
--> statement-breakpoint
create trigger sale_tells after insert on sale for each statement execute function tell_changes('sales');
--> statement-breakpoint
create trigger sale_return_tells after insert on sale_return for each statement execute function tell_changes('sales');
