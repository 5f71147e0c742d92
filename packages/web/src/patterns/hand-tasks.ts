/** Stitching and painting by hand, of the worker that evaluates. */
import { type Choices, evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { type Brush, brushed } from '@tessellum/core/hand/brush'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import { type NotPainted, type Painted, paint as paintBeads } from '@tessellum/core/hand/paint'
import { type RolledOut, rolledOut as rollOut } from '@tessellum/core/hand/rolled-out'
import type { NoWork } from '@tessellum/core/hand/so-far'
import { type HandState, Stitching, sameAsDrawn, type WayThere } from '@tessellum/core/hand/stitching'

/** The work that a hand stitches on stays the same from pass to pass. */
let begun: { readonly key: string; readonly stitching: ReturnType<typeof Stitching.begin> } | undefined

function stitchingOn(source: string, choices: Choices): ReturnType<typeof Stitching.begin> {
  const key = JSON.stringify([source, choices])
  if (begun?.key !== key) begun = { key, stitching: Stitching.begin(source, choices) }
  return begun.stitching
}

export function stitch(
  source: string,
  choices: Choices,
  passes: readonly HandPass[],
  drawn: Int32Array,
): HandState | NoWork {
  const stitching = stitchingOn(source, choices)
  return stitching instanceof Stitching ? stitching.state(passes, drawn) : stitching
}

export function wayThere(
  source: string,
  choices: Choices,
  passes: readonly HandPass[],
  bead: number,
): WayThere | undefined {
  const stitching = stitchingOn(source, choices)
  return stitching instanceof Stitching ? stitching.way(passes, bead) : undefined
}

export const rolledOut = (source: string, choices: Choices): RolledOut | undefined =>
  rollOut(evaluatePattern(source, choices))

export function paint(
  source: string,
  choices: Choices,
  bead: number,
  brush: Brush,
  letter: string,
  drawn?: Int32Array,
): (Painted & { readonly round: number }) | NotPainted {
  const { work } = evaluatePattern(source, choices)
  if (drawn && (drawn.length !== work.passes || sameAsDrawn(work, drawn) < work.passes))
    return { why: 'The piece is being laid out again. Paint again when it is there.' }
  const at = brushed(work, bead, brush)
  const painted = paintBeads(source, choices, new Map(at.map((each) => [each, letter])))
  return 'why' in painted ? painted : { ...painted, round: brushed(work, bead, { type: 'round' }).length }
}
