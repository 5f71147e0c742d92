import type { StatementReport } from '../report/report'
import type { Scene } from './scene'
import { type Face, type View, viewOf } from './view'

/** Beyond so many, drawings of single lines say nothing on paper any more. */
const mostDrawn = 60

export interface StepView {
  readonly view: View
  /** The side on which the line is worked; said beside the drawing where it is not the front. */
  readonly face: Face
}

/** The drawings of a written pattern: by line, what it adds and passes; only lines that do either. */
export function stepViews(scene: Scene, statements: readonly StatementReport[]): Record<number, StepView> {
  const doing = new Set(scene.passes.map((pass) => pass.statement))
  const drawn = statements.flatMap(({ line }, statement) => (doing.has(statement) ? [[line, statement] as const] : []))
  return Object.fromEntries(
    drawn.slice(0, mostDrawn).map(([line, statement]) => {
      const face = faceOf(scene, statement)
      return [line, { view: viewOf(scene, { face, statement }), face }]
    }),
  )
}

/** A line whose beads lie behind the middle of what is there already, by half a bead, is seen from behind. */
export function faceOf({ passes, beads, poses }: Scene, statement: number): Face {
  const own = { sum: 0, count: 0 }
  const all = { sum: 0, count: 0 }
  for (const pass of passes) {
    if (pass.statement > statement) continue
    const tally = pass.statement === statement ? [own, all] : [all]
    for (const each of tally) {
      each.sum += poses[9 * pass.bead + 2] as number
      each.count++
    }
  }
  const half = (beads[0]?.acrossMm ?? 2) / 2
  return own.count > 0 && own.sum / own.count < all.sum / all.count - half ? 'back' : 'front'
}
