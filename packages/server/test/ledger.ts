import type { Pool } from 'pg'

/**
 * Balances as they are, once they have been found to be what the moves add up to and what batches hold to be what their bags need and the packed
 * kits they are promised; nothing is below nought, nothing promised twice, and no request has acted twice.
 *
 * @throws Error saying which lot is wrong
 */
export async function ledgerOf(pool: Pool): Promise<Map<number, { onHand: number; reserved: number }>> {
  const { rows } = await pool.query(`
    select b.lot_id, b.on_hand::int, b.reserved::int,
      coalesce(sum(m.on_hand), 0)::int as moved, coalesce(sum(m.reserved), 0)::int as promised,
      coalesce((select sum(greatest(target, filled)) from bag join batch on batch.id = bag.batch_id
        where bag.lot_id = b.lot_id and batch.state in ('reserved', 'packing', 'packed')), 0)::int
      + coalesce((select sum(kits.reserved) from move kits join lot on lot.id = kits.lot_id join kit_item on kit_item.item_id = lot.item_id
        join batch on batch.id = kits.batch_id where kits.lot_id = b.lot_id
        and (batch.state in ('reserved', 'packing', 'packed') or batch.state = 'closed' and batch.kept)), 0)::int as in_bags
    from balance b left join move m on m.lot_id = b.lot_id group by b.lot_id order by b.lot_id`)
  for (const { lot_id, on_hand, reserved, moved, promised, in_bags } of rows) {
    const wrong =
      on_hand !== moved || reserved !== promised || reserved !== in_bags || reserved < 0 || on_hand < reserved
    if (wrong)
      throw new Error(
        `lot ${lot_id}: ${on_hand} on hand of ${moved} moved, ${reserved} reserved of ${promised} promised, ${in_bags} in bags and kits`,
      )
  }
  const totals = await pool.query(`
    select item_total.item_id from item_total left join lot on lot.item_id = item_total.item_id left join balance on balance.lot_id = lot.id
    group by item_total.item_id
    having item_total.on_hand <> coalesce(sum(balance.on_hand), 0) or item_total.reserved <> coalesce(sum(balance.reserved), 0)`)
  if (totals.rows.length > 0) throw new Error(`item ${totals.rows[0].item_id} has another total than its lots`)
  const twice = await pool.query(
    `select action_key from move where kind in ('sale', 'scrap', 'correction') and batch_id is null group by action_key, lot_id having count(*) > 1`,
  )
  if (twice.rows.length > 0) throw new Error(`acted twice: ${twice.rows[0].action_key}`)
  return new Map(rows.map((row) => [row.lot_id, { onHand: row.on_hand, reserved: row.reserved }]))
}
