/** Many clients at once on few lots: reserving, releasing, selling, correcting; every answer accounted for. */
import { randomUUID } from 'node:crypto'
import type { Pool } from 'pg'
import { ledgerOf } from './ledger'
import type { Caller } from './shop'

export interface Hammered {
  readonly seconds: number
  /** Answers by status and code: "200", "409 short-of-stock". */
  readonly answers: Readonly<Record<string, number>>
  readonly moves: number
  readonly reservations: number
}

/** What may be refused when many take from the same lots. */
const expected = new Set(['200', '409 short-of-stock', '409 crossed', '409 wrong-state', '409 busy-shelf'])

/** How long it goes on: for a bench by the clock, for a test, which may run on a slow machine, by what is asked in all. */
type HowLong = { readonly seconds: number } | { readonly requests: number }

/**
 * @param callers one for each client, of any server on the one database
 * @param batches share of what is done that is reserving and giving back
 * @throws Error when an answer is lost or unexpected, or the ledger does not add up afterwards
 */
export async function hammer(
  pool: Pool,
  callers: readonly Caller[],
  howLong: HowLong,
  batches = 0.25,
): Promise<Hammered> {
  const { rows: lots } = await pool.query<{ id: number }>(
    'select min(id)::int as id from lot where item_id <= 20 group by item_id',
  )
  const before = await ledgerOf(pool)
  const answers: Record<string, number> = {}
  const moved = new Map<number, number>()
  const keys = new Set<string>()
  let reservations = 0
  const count = (status: number, code: string | undefined) => {
    const what = status === 200 ? '200' : `${status} ${code}`
    answers[what] = (answers[what] ?? 0) + 1
  }
  const planned = await Promise.all(
    callers.map((caller, i) => {
      const line = { patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 1 + (i % 3) }
      return caller.ask('POST', '/batches', { name: `Client ${i}`, dueOn: '2027-03-01', lines: [line] })
    }),
  )
  for (const { status, body } of planned)
    if (status !== 200) throw new Error(`planning was answered ${status}: ${JSON.stringify(body)}`)
  const from = performance.now()
  const seconds = () => (performance.now() - from) / 1000
  let asked = 0
  const goesOn = () => ('requests' in howLong ? asked++ < howLong.requests : seconds() < howLong.seconds)
  await Promise.all(
    callers.map(async (caller, i) => {
      const batch = planned[i]?.body
      let held = false
      while (goesOn()) {
        if (Math.random() < batches) {
          const { status, body } = await caller.ask('POST', `/batches/${batch.id}/${held ? 'release' : 'reserve'}`, {})
          count(status, body.code)
          if (status === 200) {
            held = !held
            reservations++
          }
          continue
        }
        const lotId = lots[Math.floor(Math.random() * lots.length)]?.id as number
        const kind = ['sale', 'correction', 'receive'][Math.floor(Math.random() * 3)] as string
        const quantity = 1 + Math.floor(Math.random() * (kind === 'sale' ? 400 : 200))
        const signed = kind === 'correction' && Math.random() < 0.5 ? -quantity : quantity
        const key = randomUUID()
        const post = () =>
          caller.ask('POST', `/lots/${lotId}/moves`, { kind, quantity: signed, reason: 'hammer' }, { key })
        const { status, body } = await post()
        count(status, body.code)
        if (status !== 200) continue
        keys.add(key)
        moved.set(lotId, (moved.get(lotId) ?? 0) + (kind === 'sale' ? -signed : signed))
        // Now and then the answer is taken for lost, and the same is sent again.
        if (Math.random() < 0.05 && (await post()).body.moveId !== body.moveId)
          throw new Error('a repeated request acted again')
      }
    }),
  )
  const took = seconds()
  const strange = Object.keys(answers).filter((each) => !expected.has(each))
  if (strange.length > 0) throw new Error(`answered ${strange.join(', ')}: ${JSON.stringify(answers)}`)
  const after = await ledgerOf(pool)
  for (const { id } of lots) {
    const change = (after.get(id)?.onHand ?? 0) - (before.get(id)?.onHand ?? 0)
    if (change !== (moved.get(id) ?? 0))
      throw new Error(`lot ${id} changed by ${change}, and ${moved.get(id)} was answered`)
  }
  const { rows: found } = await pool.query(`select idempotency_key from move where reason = 'hammer'`)
  if (found.length !== keys.size || found.some(({ idempotency_key }) => !keys.has(idempotency_key)))
    throw new Error(`${keys.size} moves were answered, ${found.length} are in the ledger`)
  return { seconds: took, answers, moves: keys.size, reservations }
}
