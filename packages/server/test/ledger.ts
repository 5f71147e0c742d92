import type { Pool } from 'pg'
import { verify } from '../src/verify/verify'

/**
 * Balances as they are, once everything that is kept has been found to be what the ledger adds up to.
 *
 * @throws Error saying what is wrong
 */
export async function ledgerOf(pool: Pool): Promise<Map<number, { onHand: number; reserved: number }>> {
  const client = await pool.connect()
  try {
    const wrong = (await verify(client)).filter((each) => each.wrong.length > 0)
    if (wrong.length > 0) throw new Error(wrong.map(({ name, wrong: all }) => `${name}: ${all.join('; ')}`).join('\n'))
    const { rows } = await client.query('select lot_id, on_hand::int, reserved::int from balance order by lot_id')
    return new Map(rows.map((row) => [row.lot_id, { onHand: row.on_hand, reserved: row.reserved }]))
  } finally {
    client.release()
  }
}
