import { createHash } from 'node:crypto'
import { serialize } from 'node:v8'
import type { Allocation } from '@tessellum/core/allocation/allocation'
import type { Shortage } from '@tessellum/core/allocation/shortages'
import { LRUCache } from 'lru-cache'
import { detached } from '../context'
import type { WorkerPool } from '../jobs/pool'
import { type FreeLot, type PlannedKits, rivals } from './allocation'
import type { LineBill } from './bills'

interface Bought {
  readonly allocation: Allocation
  readonly shortages: readonly Shortage[]
}

/** The bench, the diary and every class ask for the same as long as no bead is moved. */
const recent = new LRUCache<string, Promise<Bought>>({ max: 12 })

/** What must be bought to make all lines: none exactly where the best filling makes them. */
export function shortagesFor(
  workers: WorkerPool,
  lines: readonly PlannedKits[],
  bills: readonly LineBill[],
  lots: readonly FreeLot[],
  priorities: readonly number[] = [],
): Promise<Bought> {
  const problem = rivals(lines, bills, lots, priorities)
  // Serialized as it goes to a worker: what lines share is written once.
  const key = createHash('sha256').update(serialize(problem)).digest('base64')
  const known = recent.get(key)
  if (known) return known
  const answer = detached(work)
  recent.set(key, answer)
  // What failed, or was not proven in time, is tried again by whoever asks next.
  const forget = () => recent.get(key) === answer && recent.delete(key)
  answer.then(({ allocation }) => allocation.proven || forget(), forget)
  return answer

  async function work(): Promise<Bought> {
    const allocation = await workers.run('allocate', problem)
    return { allocation, shortages: await workers.run('shortages', { ...problem, allocation }) }
  }
}
