/** A server that is killed hard in the middle of a step, again and again: after each start the step is done once, or not at all. */
import { randomUUID } from 'node:crypto'
import type { Packing } from '@tessellum/contract/packing'
import { ledgerOf } from './ledger'
import { sellShelved } from './pack'
import { Caller, type Shop } from './shop'

const steps = ['reserve', 'pack', 'close'] as const

export interface Killed {
  readonly kills: number
  /** How often the step had been done before the server died, and how often not. */
  readonly done: number
  readonly undone: number
}

/** @param shop its own server stays alive, and is asked how things stand */
export async function killAgainAndAgain(shop: Shop, times: number): Promise<Killed> {
  const odile = await shop.as('odile')
  const line = { patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 2 }
  let [done, undone] = [0, 0]
  let batchId = 0
  // How long each step goes on before the kill, ms: longer after one that came too early, shorter after one that came too late.
  const wait = { reserve: 30, pack: 30, close: 10 }
  for (let kill = 0; kill < times; kill++) {
    const step = steps[kill % steps.length] as (typeof steps)[number]
    if (step === 'reserve') {
      // What stands packed would be taken before any bead.
      await sellShelved(shop, odile)
      // Beads for every round of it.
      await shop.pool.query(
        `insert into move (lot_id, kind, on_hand, reserved, person_id, idempotency_key) select min(lot.id), 'receive', 5000, 0, 1, $1 from lot where item_id in (select item_id from colourway_choice where colourway_version_id = 1) group by item_id`,
        [randomUUID()],
      )
      batchId = (await odile.ask('POST', '/batches', { name: `Kill ${kill}`, dueOn: '2027-03-01', lines: [line] })).body
        .id
    }
    const packing = async () => (await odile.ask<Packing>('GET', `/batches/${batchId}/packing`)).body
    const asks =
      step === 'pack'
        ? (await packing()).tasks.flatMap(({ itemId, bags }) =>
            bags.map(({ lineId, kit, target }) => ({ lineId, kit, itemId, quantity: target })),
          )
        : [{}]
    const keys = asks.map(() => randomUUID())
    const act = (caller: Caller, i: number) =>
      step === 'pack'
        ? caller.ask('PUT', `/batches/${batchId}/bags`, asks[i], { key: keys[i] as string })
        : caller.ask('POST', `/batches/${batchId}/${step}`, {}, { key: keys[i] as string })
    const victim = await shop.beside()
    const caller = new Caller(victim.base)
    caller.cookie = odile.cookie
    caller.token = odile.token
    // Its threads are awake and its forms evaluated, as those of a server that has been up for a while.
    await caller.ask('GET', `/batches/${batchId}`)
    const asked = Promise.allSettled(asks.map((_, i) => act(caller, i)))
    await new Promise((after) => setTimeout(after, wait[step] * (0.7 + 0.6 * Math.random())))
    victim.kill()
    const answers = await asked
    await ledgerOf(shop.pool)
    const { rows } = await shop.pool.query(
      `select count(*)::int as acted from idempotent_request where key = any($1)`,
      [keys],
    )
    const was =
      step === 'pack'
        ? (await packing()).tasks.every(({ bags }) => bags.every(({ filled }) => filled !== null))
        : rows[0].acted === 1
    if (was) done++
    else undone++
    wait[step] *= was ? 0.75 : 1.3
    // Whoever asked tries again with the same key, as a page does.
    for (const [i] of asks.entries()) {
      const { status, body } = await act(odile, i)
      if (status !== 200) throw new Error(`${step} after a kill: ${status} ${body.message}`)
    }
    if (answers.length !== asks.length) throw new Error('an answer is missing')
    const state = (await packing()).state
    const wanted = { reserve: 'reserved', pack: 'packed', close: 'closed' }[step]
    if (state !== wanted) throw new Error(`after ${step} the batch is ${state}`)
    const lots = await ledgerOf(shop.pool)
    if (lots.size === 0) throw new Error('there is no ledger')
    const moves = await shop.pool.query(
      `select kind, lot_id from move where batch_id = $1 and kind in ('reserve', 'issue') group by kind, lot_id having count(*) > 1`,
      [batchId],
    )
    if (moves.rows.length > 0) throw new Error(`${moves.rows[0].kind} of lot ${moves.rows[0].lot_id} twice`)
  }
  return { kills: times, done, undone }
}
