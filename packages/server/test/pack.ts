import type { Packing } from '@tessellum/contract/packing'
import type { Caller } from './shop'

/** Reserves a batch that is not yet, fills every bag to its target and closes it. */
export async function packAndClose(caller: Caller, batchId: number): Promise<void> {
  await caller.ask('POST', `/batches/${batchId}/reserve`, {})
  const { body } = await caller.ask<Packing>('GET', `/batches/${batchId}/packing`)
  for (const { itemId, bags } of body.tasks)
    for (const { lineId, kit, target } of bags)
      await caller.ask('PUT', `/batches/${batchId}/bags`, { lineId, kit, itemId, quantity: target })
  expect((await caller.ask('POST', `/batches/${batchId}/close`, {})).status).toBe(200)
}
