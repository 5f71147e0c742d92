/**
 * What can be worked out from the ledger, worked out once more and compared with what is kept. Each check is a statement that finds what is wrong,
 * in words, and one that counts what was looked at: written against the tables, and sharing nothing with the code that keeps them.
 */
interface Check {
  readonly name: string
  readonly looked: string
  /** Rows of one column, "what". */
  readonly wrong: string
}

const open = `('reserved', 'packing', 'packed')`

/** What batches hold of a lot: beads for their bags, and packed kits that are theirs until they are handed out. */
const inBags = `
  select lot_id, sum(greatest(target, coalesce(filled, 0))) as held
  from bag join batch on batch.id = bag.batch_id where batch.state in ${open} and lot_id is not null group by lot_id
  union all
  select move.lot_id, sum(move.reserved) from move join lot on lot.id = move.lot_id join kit_item on kit_item.item_id = lot.item_id
  join batch on batch.id = move.batch_id where batch.state in ${open} or batch.state = 'closed' and batch.kept group by move.lot_id`

export const checks: readonly Check[] = [
  {
    name: 'each lot has on hand and reserved what its moves add up to',
    looked: 'select count(*) from balance',
    wrong: `
      select format('lot %s: %s on hand of %s moved, %s reserved of %s promised', b.lot_id, b.on_hand, coalesce(m.on_hand, 0), b.reserved, coalesce(m.reserved, 0)) as what
      from balance b left join (select lot_id, sum(on_hand) as on_hand, sum(reserved) as reserved from move group by lot_id) m on m.lot_id = b.lot_id
      where b.on_hand <> coalesce(m.on_hand, 0) or b.reserved <> coalesce(m.reserved, 0)`,
  },
  {
    name: 'each lot has a balance',
    looked: 'select count(*) from lot',
    wrong: `select format('lot %s has none', id) as what from lot where not exists (select from balance where lot_id = lot.id)`,
  },
  {
    name: 'nothing is below 0, and nothing is promised that is not there',
    looked: 'select count(*) from balance',
    wrong: `select format('lot %s: %s on hand, %s reserved', lot_id, on_hand, reserved) as what from balance where reserved < 0 or on_hand < reserved`,
  },
  {
    name: 'of each lot is reserved what batches hold in bags and packed kits',
    looked: 'select count(*) from balance',
    wrong: `
      select format('lot %s: %s reserved, %s held', b.lot_id, b.reserved, coalesce(h.held, 0)) as what
      from balance b left join (select lot_id, sum(held) as held from (${inBags}) each_held group by lot_id) h on h.lot_id = b.lot_id
      where b.reserved <> coalesce(h.held, 0)`,
  },
  {
    name: 'each item has the total of its lots',
    looked: 'select count(*) from item',
    wrong: `
      select format('item %s: %s on hand of %s, %s reserved of %s', item.id, t.on_hand, coalesce(sum(b.on_hand), 0), t.reserved, coalesce(sum(b.reserved), 0)) as what
      from item left join item_total t on t.item_id = item.id left join lot on lot.item_id = item.id left join balance b on b.lot_id = lot.id
      group by item.id, t.item_id, t.on_hand, t.reserved, t.reorder_below, item.reorder_below
      having t.item_id is null or t.on_hand <> coalesce(sum(b.on_hand), 0) or t.reserved <> coalesce(sum(b.reserved), 0) or t.reorder_below <> item.reorder_below`,
  },
  {
    name: 'each line of a batch that holds anything has its kits, in bags or packed',
    looked: `select count(*) from batch_line join batch on batch.id = batch_id where state in ${open}`,
    wrong: `
      with wanted as (
        select batch_id, pattern_version_id, size, colourway_version_id, sum(kits) as kits, array_agg(batch_line.id) as lines
        from batch_line join batch on batch.id = batch_id where state in ${open} group by 1, 2, 3, 4
      )
      select format('batch %s: %s kits wanted of version %s, %s in bags, %s packed', batch_id, kits, pattern_version_id, bags, packed) as what from (
        select wanted.*,
          (select count(*) from (select distinct line_id, kit from bag where bag.line_id = any(wanted.lines)) laid) as bags,
          (select coalesce(sum(move.reserved), 0) from move join lot on lot.id = move.lot_id join kit_item k on k.item_id = lot.item_id
            where move.batch_id = wanted.batch_id and k.pattern_version_id = wanted.pattern_version_id and k.size = wanted.size
              and k.colourway_version_id = wanted.colourway_version_id) as packed
        from wanted
      ) found where kits <> bags + packed`,
  },
  {
    name: 'no bag is of a batch that holds nothing, or of a line that is another batch’s',
    looked: 'select count(*) from bag',
    wrong: `
      select format('bag %s of line %s, batch %s, which is %s', kit, line_id, bag.batch_id, batch.state) as what
      from bag join batch on batch.id = bag.batch_id join batch_line on batch_line.id = bag.line_id
      where batch.state in ('draft', 'cancelled') or batch_line.batch_id <> bag.batch_id`,
  },
  {
    name: 'a packed batch has every bag filled',
    looked: `select count(*) from batch where state in ('packed', 'closed')`,
    wrong: `
      select format('bag %s of line %s in batch %s is empty', kit, line_id, batch.id) as what
      from bag join batch on batch.id = bag.batch_id where batch.state in ('packed', 'closed') and filled is null`,
  },
  {
    name: 'no request has acted twice',
    looked: 'select count(distinct idempotency_key) from move',
    wrong: `
      select format('%s: %s times lot %s', idempotency_key, count(*), lot_id) as what from move
      where kind in ('sale', 'scrap', 'correction') and batch_id is null group by idempotency_key, lot_id having count(*) > 1`,
  },
  {
    name: 'each request that was carried out has its result',
    looked: 'select count(*) from idempotent_request',
    wrong: `select format('%s (%s)', key, kind) as what from idempotent_request where result is null`,
  },
  {
    name: 'a move is reversed once, and whole',
    looked: 'select count(*) from move where reverses is not null',
    wrong: `
      select format('move %s reverses %s', back.id, was.id) as what from move back join move was on was.id = back.reverses
      where back.on_hand <> -was.on_hand or back.reserved <> -was.reserved or back.lot_id <> was.lot_id`,
  },
]
