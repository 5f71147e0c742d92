import type { Pool } from 'pg'

/**
 * Balances as they are, once they have been found to be what the moves add up to and what batches hold to be what their bags need; nothing is
 * below nought and nothing promised twice.
 */
export async function ledgerOf(pool: Pool): Promise<Map<number, { onHand: number; reserved: number }>> {
  const { rows } = await pool.query(`
    select b.lot_id, b.on_hand::int, b.reserved::int,
      coalesce(sum(m.on_hand), 0)::int as moved, coalesce(sum(m.reserved), 0)::int as promised,
      coalesce((select sum(target) from bag join batch on batch.id = bag.batch_id
        where bag.lot_id = b.lot_id and batch.state in ('reserved', 'packing', 'packed')), 0)::int as in_bags
    from balance b left join move m on m.lot_id = b.lot_id group by b.lot_id order by b.lot_id`)
  for (const row of rows) {
    expect([row.lot_id, row.on_hand, row.reserved]).toEqual([row.lot_id, row.moved, row.promised])
    expect([row.lot_id, row.reserved]).toEqual([row.lot_id, row.in_bags])
    expect(row.reserved).toBeGreaterThanOrEqual(0)
    expect(row.on_hand).toBeGreaterThanOrEqual(row.reserved)
  }
  return new Map(rows.map((row) => [row.lot_id, { onHand: row.on_hand, reserved: row.reserved }]))
}
