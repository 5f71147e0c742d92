import type { Competing, ListedBatch } from '@tessellum/contract/batches'
import { doneShare, isShort, listed } from '../src/kits/batch-list'

const batch = (id: number, name: string, more: Partial<ListedBatch>): ListedBatch => ({
  id,
  name,
  dueOn: `2027-01-0${id}`,
  state: 'draft',
  priority: 0,
  kits: 10,
  patterns: ['Windlass pendant'],
  bags: { filled: 0, of: 0 },
  drawing: null,
  ...more,
})
const draft = (batchId: number, wanted: number, kits: number): Competing[number] => ({
  batchId,
  name: '',
  dueOn: '',
  priority: 0,
  wanted,
  kits,
  limitedBy: [],
})

const fair = batch(1, 'Winter fair', { state: 'packed', bags: { filled: 40, of: 40 } })
const evening = batch(2, 'Evening class', { state: 'packing', bags: { filled: 10, of: 40 }, patterns: ['Cross keys'] })
const market = batch(3, 'Market table', {})
const lock = batch(4, 'Lock keepers', {})
const past = batch(5, 'Boathouse', { state: 'closed', bags: { filled: 20, of: 20 } })
const all = [fair, evening, market, lock, past]
const drafts = [draft(3, 10, 10), draft(4, 24, 6)]
const names = (filter: Partial<Parameters<typeof listed>[2]>) =>
  listed(all, drafts, { find: '', show: 'all', by: 'due', ...filter }).map(({ name }) => name)

test('how far a batch has come: bags filled, or how far the shelf goes for what is planned', () => {
  expect(
    all.map((each) =>
      doneShare(
        each,
        drafts.find(({ batchId }) => batchId === each.id),
      ),
    ),
  ).toEqual([1, 0.25, 1, 0.25, undefined])
  // While the shelf is being looked at, nothing is told.
  expect(doneShare(lock, undefined)).toBeUndefined()
  expect([isShort(drafts[0]), isShort(drafts[1]), isShort(undefined)]).toEqual([false, true, false])
})

test('batches are found by words of their name and pattern, and by how they stand', () => {
  expect(names({ find: 'cross EVENING' })).toEqual(['Evening class'])
  expect(names({ find: 'windlass' })).toEqual(['Winter fair', 'Market table', 'Lock keepers', 'Boathouse'])
  expect(names({ show: 'short' })).toEqual(['Lock keepers'])
  expect(names({ show: 'planned' })).toEqual(['Market table', 'Lock keepers'])
  expect(names({ show: 'closed' })).toEqual(['Boathouse'])
  expect(names({ show: 'reserved' })).toEqual([])
})

test('what waits for stock comes before what waits to be packed, and what is done comes last', () => {
  expect(names({ by: 'name' })).toEqual(['Boathouse', 'Evening class', 'Lock keepers', 'Market table', 'Winter fair'])
  expect(names({ by: 'left' }).slice(0, 3)).toEqual(['Lock keepers', 'Market table', 'Evening class'])
})
