import type { BatchState } from '@tessellum/contract/batches'
import type { Readiness } from '@tessellum/contract/classes'

/** How far a batch has come. @param short of something that must be bought */
export function readinessOf(state: BatchState | null, short: boolean): Readiness {
  switch (state) {
    case null:
    case 'cancelled':
      return 'unplanned'
    case 'draft':
      return short ? 'short' : 'to reserve'
    case 'reserved':
      return 'to pack'
    case 'packing':
      return 'packing'
    case 'packed':
    case 'closed':
      return 'ready'
  }
}
