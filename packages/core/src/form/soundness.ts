/**
 * Whether a form can be relied on. At rest is not enough: its threads must close, nothing may be pressed, and a stone that is said to be held
 * must lie inside its rings.
 */
import type { Form } from './form'
import { gapingThreads } from './gaping'
import type { Shape } from './shape'

export interface Soundness {
  readonly strained: { readonly threads: number; readonly of: number }
  /** The deepest press, as a share of the narrower bead's width. */
  readonly pressed: number
  /** Stones that have slipped out of their rings, by their letters. */
  readonly slipped: readonly string[]
  readonly sound: boolean
}

/** One thread in a hundred may gape. */
const mostGaping = 0.01
const mostPressed = 0.1

export function soundnessOf(form: Form): Soundness {
  const { piece, settling } = form
  const of = piece.within.reduce((sum, within) => sum + (within ? 0 : 1), 0)
  const strained = { threads: gapingThreads(piece), of }
  const acrossOf = (bead: number) => (piece.shapes[piece.shapeOf[bead] as number] as Shape).bead.acrossMm
  const pressed = settling
    .pressed()
    .reduce((most, { a, b, overMm }) => Math.max(most, overMm / Math.min(acrossOf(a), acrossOf(b))), 0)
  const slipped = slippedOut(form)
  const sound =
    settling.progress.settled && strained.threads <= mostGaping * of && pressed <= mostPressed && slipped.length === 0
  return { strained, pressed, slipped, sound }
}

/** The first row lies round the stone: on the whole between its faces, with its middle near the stone's. */
function slippedOut({ piece, seats }: Form): string[] {
  return seats.flatMap(({ stone, solid }) => {
    if (stone === undefined || !solid || solid.rests.length === 0) return []
    const off = [0, 0, 0]
    for (const point of solid.rests)
      for (let c = 0; c < 3; c++)
        off[c] =
          (off[c] as number) + ((piece.at[3 * point + c] as number) - (solid.at[c] as number)) / solid.rests.length
    const along = off.reduce((sum, each, c) => sum + each * (solid.front[c] as number), 0)
    const beside = Math.sqrt(Math.max(0, off.reduce((sum, each) => sum + each * each, 0) - along * along))
    const inside = along <= solid.frontMm && along >= -solid.backMm && beside <= solid.wideMm / 4
    return inside ? [] : [stone]
  })
}
