/** Which batches the list shows, and in which order. */
import type { BatchState, Competing, ListedBatch } from '@tessellum/contract/batches'
import type { ListFilter } from '../frame/list-filter'

export const shown = ['all', 'short', 'planned', 'reserved', 'being packed', 'packed', 'closed'] as const
export const orders = { due: 'by the day due', name: 'by name', left: 'by what is left to do' } as const

export type BatchFilter = ListFilter<(typeof shown)[number], keyof typeof orders>

const states: Readonly<Partial<Record<BatchFilter['show'], readonly BatchState[]>>> = {
  planned: ['draft'],
  reserved: ['reserved'],
  'being packed': ['packing'],
  packed: ['packed'],
  closed: ['closed', 'cancelled'],
}

export const isOver = ({ state }: Pick<ListedBatch, 'state'>): boolean => state === 'closed' || state === 'cancelled'

/** The shelf does not go far enough for it when all drafts are served in their turn. */
export const isShort = (draft: Competing[number] | undefined): boolean =>
  draft !== undefined && draft.kits < draft.wanted

/** How much of a batch is done, from 0 to 1; undefined where there is nothing to do or to tell. */
export function doneShare({ state, bags }: ListedBatch, draft: Competing[number] | undefined): number | undefined {
  if (state === 'draft') return draft && draft.wanted > 0 ? draft.kits / draft.wanted : undefined
  return isOver({ state }) || bags.of === 0 ? undefined : bags.filled / bags.of
}

/** Bags to fill; of what is planned, kits that wait for stock come first. */
const left = (batch: ListedBatch, draft: Competing[number] | undefined): number => {
  const done = doneShare(batch, draft)
  return done === undefined ? 0 : (batch.state === 'draft' ? 2 : 1) - done
}

export function listed(
  batches: readonly ListedBatch[],
  drafts: Competing,
  { find, show, by }: BatchFilter,
): ListedBatch[] {
  const draftOf = ({ id }: ListedBatch) => drafts.find(({ batchId }) => batchId === id)
  const words = find.toLowerCase().split(/\s+/).filter(Boolean)
  const found = batches.filter((batch) => {
    const text = [batch.name, ...batch.patterns].join(' ').toLowerCase()
    if (!words.every((word) => text.includes(word))) return false
    return show === 'all' || (show === 'short' ? isShort(draftOf(batch)) : (states[show] ?? []).includes(batch.state))
  })
  // By the day they are due as they come.
  if (by === 'name') return found.sort((a, b) => a.name.localeCompare(b.name))
  return by === 'left' ? found.sort((a, b) => left(b, draftOf(b)) - left(a, draftOf(a))) : found
}
