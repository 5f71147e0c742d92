-- Batches that were reserved before beads were laid out bag by bag hold beads without a bag to put them into: they could neither be packed nor
-- closed. They are plans again, to be reserved once more; what they held is given back, in the ledger as anything is.
create temporary table older on commit drop as
select batch.id, batch.name, batch.made_by from batch
where state in ('reserved', 'packing', 'packed')
  and not exists (select from bag where bag.batch_id = batch.id)
  and exists (
    select from move join lot on lot.id = move.lot_id
    where move.batch_id = batch.id and not exists (select from kit_item where kit_item.item_id = lot.item_id)
    group by move.lot_id having sum(move.reserved) > 0
  );
--> statement-breakpoint
insert into move (lot_id, kind, on_hand, reserved, batch_id, person_id, action_key)
select move.lot_id, 'release', 0, -sum(move.reserved), older.id, older.made_by, 'older release, batch ' || older.id
from move join older on older.id = move.batch_id
group by move.lot_id, older.id, older.made_by having sum(move.reserved) > 0
order by move.lot_id;
--> statement-breakpoint
update batch set state = 'draft' where id in (select id from older);
--> statement-breakpoint
insert into deed (person_id, what, page)
select made_by, 'has ' || name || ' as a plan again: it was reserved before kits had bags. Reserve it once more', '/kits/' || id from older;
