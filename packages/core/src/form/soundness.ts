/**
 * Whether a form can be relied on. At rest is not enough: its threads must close, nothing may be pressed, and a stone that is said to be held
 * must lie inside its rings.
 */
import { deepestPress, maxPressed } from './deepest-press'
import type { Form } from './form'
import { gapingThreads } from './gaping'

export interface Soundness {
  readonly strained: { readonly threads: number; readonly of: number }
  /** The deepest press, as a share of the narrower bead's width. */
  readonly pressed: number
  /** Stones that have slipped out of their rings, by their letters. */
  readonly slipped: readonly string[]
  readonly sound: boolean
}

/** One thread in a hundred may gape. */
const maxGaping = 0.01

export function soundnessOf(form: Form): Soundness {
  const { piece, settling } = form
  const of = piece.within.reduce((sum, within) => sum + (within ? 0 : 1), 0)
  const strained = { threads: gapingThreads(piece), of }
  const pressed = deepestPress(piece, settling.pressed())
  const slipped = slippedOut(form)
  const sound =
    settling.progress.settled && strained.threads <= maxGaping * of && pressed <= maxPressed && slipped.length === 0
  return { strained, pressed, slipped, sound }
}

/** The first row lies round the stone: on the whole between its faces, and each of its beads well away from the stone's middle. */
function slippedOut({ piece, seats }: Form): string[] {
  return seats.flatMap(({ stone, solid, first }) => {
    if (stone === undefined || !solid || first.length === 0) return []
    let height = 0
    let nearest = Number.POSITIVE_INFINITY
    for (const point of first) {
      const off = [0, 1, 2].map((c) => (piece.at[3 * point + c] as number) - (solid.at[c] as number))
      const along = off.reduce((sum, each, c) => sum + each * (solid.front[c] as number), 0)
      height += along / first.length
      const squared = off.reduce((sum, each) => sum + each * each, 0) - along * along
      nearest = Math.min(nearest, Math.sqrt(Math.max(0, squared)))
    }
    const inside = height <= solid.frontMm && height >= -solid.backMm && nearest >= 0.6 * solid.narrowMm
    return inside ? [] : [stone]
  })
}
