CREATE TABLE "item_total" (
	"item_id" integer PRIMARY KEY NOT NULL,
	"on_hand" bigint DEFAULT 0 NOT NULL,
	"reserved" bigint DEFAULT 0 NOT NULL,
	"reorder_below" bigint DEFAULT 0 NOT NULL,
	"low" boolean GENERATED ALWAYS AS (on_hand - reserved < reorder_below) STORED
);
--> statement-breakpoint
ALTER TABLE "item_total" ADD CONSTRAINT "item_total_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "item_total_low" ON "item_total" USING btree ("item_id") WHERE low;
--> statement-breakpoint
create function begin_total() returns trigger language plpgsql as $$
begin
  insert into item_total (item_id, reorder_below) values (new.id, new.reorder_below);
  return null;
end $$;
--> statement-breakpoint
create trigger item_begins_total after insert on item for each row execute function begin_total();
--> statement-breakpoint
create function keep_reorder_below() returns trigger language plpgsql as $$
begin
  update item_total set reorder_below = new.reorder_below where item_id = new.id;
  return null;
end $$;
--> statement-breakpoint
create trigger item_keeps_reorder_below after update on item for each row when (old.reorder_below <> new.reorder_below) execute function keep_reorder_below();
--> statement-breakpoint
create function keep_totals() returns trigger language plpgsql as $$
begin
  -- One order for everybody, so that two statements wait for one another and never for each other.
  perform 1 from item_total where item_id in (select lot.item_id from moved join lot on lot.id = moved.lot_id) order by item_id for update;
  update item_total set on_hand = item_total.on_hand + change.on_hand, reserved = item_total.reserved + change.reserved
  from (
    select lot.item_id, sum(moved.on_hand) as on_hand, sum(moved.reserved) as reserved
    from moved join lot on lot.id = moved.lot_id group by lot.item_id
  ) as change
  where item_total.item_id = change.item_id;
  return null;
end $$;
--> statement-breakpoint
create trigger move_keeps_totals after insert on move referencing new table as moved for each statement execute function keep_totals();
--> statement-breakpoint
insert into item_total (item_id, on_hand, reserved, reorder_below)
select item.id, coalesce(sum(balance.on_hand), 0), coalesce(sum(balance.reserved), 0), item.reorder_below
from item left join lot on lot.item_id = item.id left join balance on balance.lot_id = lot.id group by item.id;
--> statement-breakpoint
create trigger item_total_only_by_moves before insert or update or delete on item_total for each row execute function only_by_moves();
