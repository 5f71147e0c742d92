/** What a stitcher sees when a line has been done: whether the work lies flat, cups or ruffles, and how far its edge closes over a stone. */
import type { Mm } from '../measure/units'
import type { Action } from '../stitch/action'
import { heldIn, lieOf } from './measure'
import { soundnessOf } from './soundness'
import type { StepForm } from './step-forms'

export type Look =
  | { readonly type: 'flat' }
  | { readonly type: 'ruffles'; readonly times: number }
  /** The outer edge has come so far to one side of the first row. */
  | { readonly type: 'cup'; readonly mm: Mm; readonly face: 'front' | 'back' }
  /** By how much the edge on each face is smaller than the stone; undefined where there is none yet, or it is no smaller. */
  | {
      readonly type: 'closes'
      readonly stone: string
      readonly frontMm: Mm | undefined
      readonly backMm: Mm | undefined
    }

/** A stitcher sees no less. */
const seenMm = 0.2
const cupSeenMm = 1
const minRuffles = 6

/**
 * By statement, when it has been done for the first time: what can be seen that could not be seen before. Only of rounds and standing rows, and
 * only off forms that are sound.
 *
 * @param steps the work after each line, and at last the whole
 */
export function looksAfter(steps: readonly StepForm[]): Map<number, Look> {
  const looks = new Map<number, Look>()
  const done = new Set<number>()
  let last: Look | undefined
  for (const step of steps) {
    const { evaluated, passes } = step
    const statement = passes > 0 ? evaluated.work.statementAt(passes - 1) : -1
    const action = evaluated.report.statements[statement]?.action
    if (!action || done.has(statement) || !isSeen(action)) continue
    done.add(statement)
    const look = lookOf(step)
    if (!look) continue
    if (!last || differs(look, last)) looks.set(statement, look)
    last = look
  }
  return looks
}

const isSeen = (action: Action) => (action.type === 'round' && action.closed) || action.type === 'stand'

function lookOf({ evaluated, form }: StepForm): Look | undefined {
  if (!soundnessOf(form).sound) return undefined
  const [hold] = heldIn(evaluated, form)
  if (hold) {
    const [frontMm, backMm] = [hold.frontMm, hold.backMm].map((mm) =>
      mm !== undefined && mm >= seenMm ? mm : undefined,
    )
    return frontMm === undefined && backMm === undefined
      ? undefined
      : { type: 'closes', stone: hold.stone, frontMm, backMm }
  }
  if (form.seats.length > 0) return undefined
  const { piece } = form
  const { ruffles, flat, cupMm } = lieOf(piece)
  if (ruffles >= minRuffles) return { type: 'ruffles', times: ruffles / 2 }
  if (flat) return { type: 'flat' }
  return Math.abs(cupMm) >= cupSeenMm
    ? { type: 'cup', mm: Math.abs(cupMm), face: cupMm > 0 ? 'front' : 'back' }
    : undefined
}

function differs(look: Look, last: Look): boolean {
  if (look.type === 'cup' && last.type === 'cup')
    return look.face !== last.face || Math.abs(look.mm - last.mm) >= cupSeenMm
  if (look.type === 'closes' && last.type === 'closes')
    return (['frontMm', 'backMm'] as const).some((face) => Math.abs((look[face] ?? 0) - (last[face] ?? 0)) >= seenMm)
  return look.type !== last.type
}
