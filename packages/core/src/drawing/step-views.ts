import type { Form } from '../form/form'
import { lastForms } from '../form/form-pattern'
import { type StepForm, stepForms, stepsOf } from '../form/step-forms'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { StatementReport } from '../report/report'
import { type Hand, sceneFor } from './mirror'
import { type Scene, sceneOf } from './scene'
import { type Face, type View, viewOf } from './view'

/** Beyond so many, drawings of single lines say nothing on paper any more. */
const maxDrawn = 60

export interface StepView {
  readonly view: View
  /** The side on which the line is worked; said beside the drawing where it is not the front. */
  readonly face: Face
}

/**
 * The drawings of a written pattern: by line, what it adds and passes, on the work as it lies then; only lines that do either.
 *
 * @param steps the work after each line, and at last the whole
 * @param hand whose hand it is drawn for
 */
export function stepViews(
  steps: readonly StepForm[],
  statements: readonly StatementReport[],
  hand: Hand = 'right',
): Record<number, StepView> {
  const scenes = steps.map(({ passes, evaluated, form }) => ({
    passes,
    scene: sceneFor(hand, sceneOf(evaluated, form)),
  }))
  const whole = scenes.at(-1)?.scene
  if (!whole) return {}
  const ends = new Map<number, number>()
  for (const [pass, { statement, doing }] of whole.passes.entries()) {
    const last = whole.passes[pass + 1]
    if (last?.doing !== doing && !ends.has(statement)) ends.set(statement, pass + 1)
  }
  const drawn = statements.flatMap(({ line }, statement) => {
    const end = ends.get(statement)
    return end === undefined ? [] : [{ line, statement, end }]
  })
  return Object.fromEntries(
    drawn.slice(0, maxDrawn).map(({ line, statement, end }) => {
      const { scene } = scenes.find(({ passes }) => passes >= end) as { scene: Scene }
      const face = faceOf(scene, statement)
      return [line, { view: viewOf(scene, { face, statement }), face }]
    }),
  )
}

/** The work as it lies when a line has been done for the first time. */
export function sceneAfter(statement: number, evaluated: EvaluatedPattern, form: Form): Scene {
  const { work } = evaluated
  const doing = work.doings.findIndex((from) => work.statementAt(from) >= statement)
  const end = doing < 0 ? work.passes : (work.doings[doing + 1] ?? work.passes)
  const steps = stepsOf(evaluated).filter((passes) => passes < end)
  const last = allStepForms(evaluated, form, [...steps, end]).at(-1) as StepForm
  return sceneOf(last.evaluated, last.form)
}

/** All of it at once: for documents and the command line. */
export const allStepForms = (evaluated: EvaluatedPattern, form: Form, steps = stepsOf(evaluated)): StepForm[] =>
  [...stepForms(evaluated, form, steps, lastForms)].filter((step) => step !== undefined)

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
