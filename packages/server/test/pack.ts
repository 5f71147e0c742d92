import type { Packing } from '@tessellum/contract/packing'
import type { Caller, Shop } from './shop'

/** Reserves a batch that is not yet, fills every bag to its target and closes it. */
export async function packAndClose(caller: Caller, batchId: number): Promise<void> {
  await caller.ask('POST', `/batches/${batchId}/reserve`, {})
  const { body } = await caller.ask<Packing>('GET', `/batches/${batchId}/packing`)
  for (const { itemId, bags } of body.tasks)
    for (const { lineId, kit, target } of bags)
      await caller.ask('PUT', `/batches/${batchId}/bags`, { lineId, kit, itemId, quantity: target })
  expect((await caller.ask('POST', `/batches/${batchId}/close`, {})).status).toBe(200)
}

/** Kits that stand packed are sold, so that the next batch of them is packed from beads. */
export async function sellShelved(shop: Shop, caller: Caller): Promise<void> {
  const { rows } = await shop.pool.query(
    `select lot.id, (on_hand - reserved)::int as kits from balance join lot on lot.id = lot_id join kit_item on kit_item.item_id = lot.item_id
      where on_hand > reserved`,
  )
  for (const { id, kits } of rows)
    await caller.ask('POST', `/lots/${id}/moves`, { kind: 'sale', quantity: kits, reason: 'sold' })
}
