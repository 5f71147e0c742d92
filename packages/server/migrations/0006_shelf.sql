-- Ways into the shelf that a btree cannot take: any part of any word. Ships with PostgreSQL.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
--> statement-breakpoint
CREATE TABLE "bag_return" (
	"line_id" integer NOT NULL,
	"kit" integer NOT NULL,
	"item_id" integer NOT NULL,
	"quantity" bigint NOT NULL,
	CONSTRAINT "bag_return_line_id_kit_item_id_pk" PRIMARY KEY("line_id","kit","item_id"),
	CONSTRAINT "bag_return_figures" CHECK ("bag_return"."quantity" >= 0)
);
--> statement-breakpoint
CREATE TABLE "kit_item" (
	"item_id" integer PRIMARY KEY NOT NULL,
	"pattern_version_id" integer NOT NULL,
	"size" text NOT NULL,
	"colourway_version_id" integer NOT NULL,
	CONSTRAINT "kit_item_is" UNIQUE("pattern_version_id","size","colourway_version_id")
);
--> statement-breakpoint
CREATE TABLE "purchase" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "purchase_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"item_id" integer NOT NULL,
	"supplier" text NOT NULL,
	"amount" bigint NOT NULL,
	"cost" integer NOT NULL,
	"ordered_on" date NOT NULL,
	"expected_on" date NOT NULL,
	"state" text DEFAULT 'ordered' NOT NULL,
	"lot_id" integer,
	"ordered_by" integer NOT NULL,
	CONSTRAINT "purchase_figures" CHECK ("purchase"."amount" > 0 and "purchase"."cost" >= 0),
	CONSTRAINT "purchase_state" CHECK (("purchase"."state" = 'received') = ("purchase"."lot_id" is not null))
);
--> statement-breakpoint
CREATE TABLE "stocktake" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "stocktake_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"place" text NOT NULL,
	"state" text DEFAULT 'counting' NOT NULL,
	"begun_at" timestamp with time zone DEFAULT now() NOT NULL,
	"begun_by" integer NOT NULL,
	"ended_at" timestamp with time zone,
	CONSTRAINT "stocktake_state" CHECK ("stocktake"."state" in ('counting', 'posted', 'abandoned'))
);
--> statement-breakpoint
CREATE TABLE "stocktake_row" (
	"stocktake_id" integer NOT NULL,
	"lot_id" integer NOT NULL,
	"frozen" bigint NOT NULL,
	"counted" bigint,
	"expected" bigint,
	"counted_by" integer,
	"counted_at" timestamp with time zone,
	CONSTRAINT "stocktake_row_stocktake_id_lot_id_pk" PRIMARY KEY("stocktake_id","lot_id"),
	CONSTRAINT "stocktake_row_counted" CHECK (("stocktake_row"."counted" is null) = ("stocktake_row"."expected" is null) and coalesce("stocktake_row"."counted" >= 0, true))
);
--> statement-breakpoint
CREATE TABLE "deed" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "deed_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"person_id" integer NOT NULL,
	"what" text NOT NULL,
	"page" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
ALTER TABLE "lot" DROP CONSTRAINT "lot_code_unique";
--> statement-breakpoint
ALTER TABLE "item" DROP CONSTRAINT "item_category";
--> statement-breakpoint
ALTER TABLE "move" DROP CONSTRAINT "move_kind";
--> statement-breakpoint
ALTER TABLE "colourway_choice" DROP CONSTRAINT "colourway_choice_colourway_version_id_role_size_pk";
--> statement-breakpoint
ALTER TABLE "batch" ADD COLUMN "priority" integer DEFAULT 2 NOT NULL;
--> statement-breakpoint
ALTER TABLE "colourway_choice" ADD COLUMN "rank" integer DEFAULT 0 NOT NULL;
--> statement-breakpoint
ALTER TABLE "colourway_choice" ADD CONSTRAINT "colourway_choice_colourway_version_id_role_size_rank_pk" PRIMARY KEY("colourway_version_id","role","size","rank");
--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "barcode" text;
--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "cautions" text DEFAULT '' NOT NULL;
--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "words" text DEFAULT '' NOT NULL;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "place" text DEFAULT '' NOT NULL;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "supplier" text DEFAULT '' NOT NULL;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "unit_cost" double precision;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "mg_per_bead" double precision;
--> statement-breakpoint
ALTER TABLE "lot" ADD COLUMN "measured_beads" integer;
--> statement-breakpoint
ALTER TABLE "kit_item" ADD CONSTRAINT "kit_item_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "kit_item" ADD CONSTRAINT "kit_item_pattern_version_id_pattern_version_id_fk" FOREIGN KEY ("pattern_version_id") REFERENCES "public"."pattern_version"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "kit_item" ADD CONSTRAINT "kit_item_colourway_version_id_colourway_version_id_fk" FOREIGN KEY ("colourway_version_id") REFERENCES "public"."colourway_version"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "purchase" ADD CONSTRAINT "purchase_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "purchase" ADD CONSTRAINT "purchase_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "purchase" ADD CONSTRAINT "purchase_ordered_by_person_id_fk" FOREIGN KEY ("ordered_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "stocktake" ADD CONSTRAINT "stocktake_begun_by_person_id_fk" FOREIGN KEY ("begun_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "stocktake_row" ADD CONSTRAINT "stocktake_row_stocktake_id_stocktake_id_fk" FOREIGN KEY ("stocktake_id") REFERENCES "public"."stocktake"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "stocktake_row" ADD CONSTRAINT "stocktake_row_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "stocktake_row" ADD CONSTRAINT "stocktake_row_counted_by_person_id_fk" FOREIGN KEY ("counted_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
ALTER TABLE "deed" ADD CONSTRAINT "deed_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;
--> statement-breakpoint
CREATE INDEX "purchase_item" ON "purchase" USING btree ("item_id","state");
--> statement-breakpoint
CREATE UNIQUE INDEX "stocktake_one_at_a_time" ON "stocktake" USING btree ("place") WHERE "stocktake"."state" = 'counting';
--> statement-breakpoint
CREATE INDEX "deed_person" ON "deed" USING btree ("person_id","id");
--> statement-breakpoint
CREATE INDEX "item_words" ON "item" USING gin ("words" gin_trgm_ops);
--> statement-breakpoint
CREATE INDEX "item_by_colour" ON "item" USING btree ("colour_name","id");
--> statement-breakpoint
CREATE INDEX "item_by_code" ON "item" USING btree ("code","id");
--> statement-breakpoint
CREATE INDEX "item_by_kind" ON "item" USING btree ("kind","size","id");
--> statement-breakpoint
CREATE INDEX "item_by_place" ON "item" USING btree ("place","id");
--> statement-breakpoint
CREATE INDEX "lot_place" ON "lot" USING btree ("place");
--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_barcode_unique" UNIQUE("barcode");
--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_code_place" UNIQUE("item_id","code","place");
--> statement-breakpoint
ALTER TABLE "batch" ADD CONSTRAINT "batch_priority" CHECK ("batch"."priority" in (1, 2, 3));
--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_category" CHECK ("item"."category" in ('bead', 'stone', 'thread', 'kit', 'other'));
--> statement-breakpoint
ALTER TABLE "lot" ADD CONSTRAINT "lot_figures" CHECK (coalesce("lot"."unit_cost" >= 0, true) and coalesce("lot"."mg_per_bead" > 0 and "lot"."measured_beads" > 0, "lot"."mg_per_bead" is null));
--> statement-breakpoint
ALTER TABLE "move" ADD CONSTRAINT "move_kind" CHECK (case "move"."kind"
        when 'receive' then "move"."on_hand" > 0 and "move"."reserved" = 0
        when 'correction' then "move"."reserved" = 0
        when 'sale' then "move"."on_hand" < 0 and "move"."reserved" = 0
        when 'scrap' then "move"."on_hand" < 0 and "move"."reserved" = 0
        when 'reserve' then "move"."on_hand" = 0 and "move"."reserved" > 0 and "move"."batch_id" is not null
        when 'release' then "move"."on_hand" = 0 and "move"."reserved" < 0 and "move"."batch_id" is not null
        when 'issue' then "move"."on_hand" < 0 and "move"."reserved" <= 0 and "move"."batch_id" is not null
        when 'transfer' then "move"."reserved" = 0
        when 'return' then "move"."on_hand" > 0 and "move"."reserved" = 0 and "move"."batch_id" is not null
        when 'open' then "move"."on_hand" < 0 and "move"."reserved" = 0 and "move"."batch_id" is not null
        when 'reverse' then "move"."reverses" is not null
        else false end);
--> statement-breakpoint
ALTER TABLE "bag" RENAME TO "bag_before";
--> statement-breakpoint
CREATE TABLE "bag" (
	"batch_id" integer NOT NULL,
	"line_id" integer NOT NULL,
	"kit" integer NOT NULL,
	"item_id" integer NOT NULL,
	"lot_id" integer,
	"roles" text NOT NULL,
	"least" bigint NOT NULL,
	"target" bigint NOT NULL,
	"most" bigint NOT NULL,
	"filled" bigint,
	"person_id" integer,
	"at" timestamp with time zone,
	CONSTRAINT "bag_line_id_kit_item_id_pk" PRIMARY KEY("line_id","kit","item_id"),
	CONSTRAINT "bag_figures" CHECK ("bag"."kit" > 0 and "bag"."least" > 0 and "bag"."least" <= "bag"."target" and "bag"."target" <= "bag"."most"),
	CONSTRAINT "bag_filled" CHECK (("bag"."filled" is null) = ("bag"."person_id" is null) and ("bag"."filled" is null or ("bag"."filled" between "bag"."least" and "bag"."most" and "bag"."lot_id" is not null))),
	CONSTRAINT "bag_batch_id_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."batch"("id"),
	CONSTRAINT "bag_line_id_batch_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."batch_line"("id"),
	CONSTRAINT "bag_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id"),
	CONSTRAINT "bag_lot_id_lot_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lot"("id"),
	CONSTRAINT "bag_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id")
);
--> statement-breakpoint
CREATE INDEX "bag_batch" ON "bag" USING btree ("batch_id");
--> statement-breakpoint
CREATE INDEX "bag_lot" ON "bag" USING btree ("lot_id");
--> statement-breakpoint
-- What was laid out as so many kits from each lot is now a bag for each kit, numbered in the same order.
insert into bag (batch_id, line_id, kit, item_id, lot_id, roles, least, target, most, filled, person_id, at)
select laid.batch_id, batch_line.id, laid.kit, laid.item_id, laid.lot_id, laid.roles, laid.least, laid.target, laid.most,
  bag_before.quantity, bag_before.person_id, bag_before.at
from (
  select batch_take.*, row_number() over (partition by batch_id, line, item_id order by lot_id, n)::integer as kit
  from batch_take cross join lateral generate_series(1, kits) as n
) as laid
join batch_line on batch_line.batch_id = laid.batch_id and batch_line.position = laid.line - 1
left join bag_before on bag_before.batch_id = laid.batch_id and bag_before.line = laid.line
  and bag_before.kit = laid.kit and bag_before.item_id = laid.item_id;
--> statement-breakpoint
DROP TABLE "bag_before";
--> statement-breakpoint
DROP TABLE "batch_take";
--> statement-breakpoint
update lot set place = item.place from item where item.id = lot.item_id;
--> statement-breakpoint
-- Everything an item can be found by, in one lower-case text: searched by any part of it.
create function keep_words() returns trigger language plpgsql as $$
begin
  new.words := lower(concat_ws(' ', new.code, new.kind, new.size, new.colour_name, new.colour_code, new.finish, new.place, new.barcode,
    (select name from maker where maker.id = new.maker_id),
    (select string_agg(distinct lot.code, ' ') from lot where lot.item_id = new.id)));
  return new;
end $$;
--> statement-breakpoint
create trigger item_keeps_words before insert or update on item for each row execute function keep_words();
--> statement-breakpoint
create function lot_gives_words() returns trigger language plpgsql as $$
begin
  -- The item's own trigger writes them anew.
  update item set words = '' where id = new.item_id;
  return new;
end $$;
--> statement-breakpoint
create trigger lot_gives_words after insert on lot for each row execute function lot_gives_words();
--> statement-breakpoint
update item set words = '';
--> statement-breakpoint
create trigger deed_only_added_to before update or delete or truncate on deed execute function only_added_to();
--> statement-breakpoint
create trigger bag_tells after insert or update or delete on bag for each statement execute function tell_changes('packing');
--> statement-breakpoint
create trigger item_tells after insert or update on item for each statement execute function tell_changes('stock');
--> statement-breakpoint
create trigger lot_tells after update on lot for each statement execute function tell_changes('stock');
--> statement-breakpoint
create trigger purchase_tells after insert or update on purchase for each statement execute function tell_changes('buy-list');
--> statement-breakpoint
create trigger stocktake_tells after insert or update on stocktake for each statement execute function tell_changes('stocktakes');
--> statement-breakpoint
create trigger stocktake_row_tells after update on stocktake_row for each statement execute function tell_changes('stocktakes');
--> statement-breakpoint
create trigger deed_tells after insert on deed for each statement execute function tell_changes('trail');
