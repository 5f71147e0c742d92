import type { Mm } from '../measure/units'
import type { Piece } from './piece'

/** Threads that gape by more than a bead's width: beyond twice what their stitch keeps. */
export function gapingThreads({ at, threads, natural, within }: Piece): number {
  let count = 0
  for (let t = 0; t < natural.length; t++) {
    if (within[t]) continue
    const a = 3 * (threads[2 * t] as number)
    const b = 3 * (threads[2 * t + 1] as number)
    const dx = (at[b] as number) - (at[a] as number)
    const dy = (at[b + 1] as number) - (at[a + 1] as number)
    const dz = (at[b + 2] as number) - (at[a + 2] as number)
    if (Math.sqrt(dx * dx + dy * dy + dz * dz) > 2 * (natural[t] as number)) count++
  }
  return count
}

type Laid = Pick<Piece, 'at' | 'threads'>

/** From one end of a thread to the other. */
function gapOf({ at, threads }: Laid, thread: number): Mm {
  const [a, b] = [3 * (threads[2 * thread] as number), 3 * (threads[2 * thread + 1] as number)]
  return Math.hypot(
    (at[a] as number) - (at[b] as number),
    (at[a + 1] as number) - (at[b + 1] as number),
    (at[a + 2] as number) - (at[b + 2] as number),
  )
}

/** The widest of all gaps. */
export function widestGap(laid: Laid): Mm {
  let widest = 0
  for (let thread = 0; thread < laid.threads.length / 2; thread++) widest = Math.max(widest, gapOf(laid, thread))
  return widest
}

/** The thread that lies between beads, over these passes. */
export function laidThread(piece: Piece, from = 0, to = piece.threadOf.length): Mm {
  let laid = 0
  for (let pass = from; pass < to; pass++) {
    const thread = piece.threadOf[pass] as number
    if (thread >= 0) laid += gapOf(piece, thread)
  }
  return laid
}
