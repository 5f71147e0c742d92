/**
 * The work as it lies after each line, as a stitcher has it in hand then: each grown from the one before. They are turned as the finished
 * piece is, so that it grows in its place.
 */
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { Form } from './form'
import { pieceAndSeats } from './form'
import { digestOf, type KeptForms } from './kept-forms'
import { centreOf, type Piece } from './piece'
import { Settling } from './settle'
import { layOut } from './start'
import { carried, fitOf, turnedBy } from './unfold'

export interface StepForm {
  /** The thread has been laid up to this pass. */
  readonly passes: number
  /** The pattern as far as it has been worked. */
  readonly evaluated: EvaluatedPattern
  readonly form: Form
}

/** Beads of all forms together: more would take too long, and lines in between are left out. */
const maxBeads = 30_000
/** A doing that adds less than this share of what is there is no step of its own where a line is done again. */
const minGrowth = 0.15
const slice = 50

/**
 * Where the work is looked at: when each line has been done for the first time, and now and then while lines are repeated.
 *
 * @returns passes, rising; the last is the whole piece
 */
export function stepsOf({ work }: Pick<EvaluatedPattern, 'work'>): number[] {
  const ends: { passes: number; beads: number; first: boolean }[] = []
  const seen = new Set<number>()
  let beads = 0
  for (const [k, from] of work.doings.entries()) {
    const to = work.doings[k + 1] ?? work.passes
    for (let pass = from; pass < to; pass++) if (work.isNew(pass)) beads++
    const statement = work.statementAt(from)
    ends.push({ passes: to, beads, first: !seen.has(statement) })
    seen.add(statement)
  }
  let last = 0
  const looked = ends.filter((end, k) => {
    const wanted = end.first || k === ends.length - 1 || end.beads >= last * (1 + minGrowth) + 1
    if (wanted) last = end.beads
    return wanted
  })
  const cost = looked.reduce((sum, end) => sum + end.beads, 0)
  const every = Math.ceil(cost / maxBeads)
  return looked.filter((_, k) => k % every === 0 || k === looked.length - 1).map(({ passes }) => passes)
}

/**
 * @param form of the whole piece, at rest
 * @param forms those that need not be computed again
 * @yields undefined between one look and the next while a form settles
 */
export function* stepForms(
  evaluated: EvaluatedPattern,
  form: Form,
  steps: readonly number[] = stepsOf(evaluated),
  forms?: KeptForms,
): Generator<StepForm | undefined, void> {
  const { work, report } = evaluated
  const whole = forms && digestOf(form.piece, form.seats, evaluated.tension)
  let before: StepForm | undefined
  for (const passes of steps) {
    const statement = passes > 0 ? work.statementAt(passes - 1) : -1
    const laidIn = (stone: string) =>
      report.statements.findIndex(({ action }) => action.type === 'place' && action.role === stone) <= statement
    if (passes === work.passes) {
      yield { passes, evaluated, form }
      return
    }
    const early: EvaluatedPattern = { ...evaluated, work: work.upTo(passes, laidIn) }
    const begun = pieceAndSeats(early)
    const digest = `${whole}-${passes}`
    const known = forms?.get(digest)
    let settling: Settling
    if (known) settling = Settling.atRest(begun.piece, known)
    else {
      const same = before?.form.piece.solids.length === begun.piece.solids.length
      growFrom(begun.piece, form.piece, same ? before?.form.piece : undefined)
      layOut(begun.piece, begun.seats)
      settling = new Settling(begun.piece, evaluated.tension, [], 600, 'grown')
      while (!settling.progress.settled && !settling.progress.spent) {
        settling.run(slice)
        yield undefined
      }
      turnAs(begun.piece, form.piece)
      forms?.keep(digest, settling.asKept())
    }
    before = { passes, evaluated: early, form: { ...begun, settling } }
    yield before
  }
}

/** Where a part of a piece begins: what was there before as it lay then, and what is new about it as it lies in the end. */
function growFrom(piece: Piece, whole: Piece, before: Piece | undefined): void {
  const known = before?.at.length ?? 0
  piece.at.set(whole.at.subarray(0, piece.at.length))
  if (!before || known === 0) return
  // What is near the new beads says how those are turned; all of it where that is little.
  const near = nearNew(whole, before.work.beads, piece.work.beads)
  const fit = fitOf(before.at, { points: near, places: placesOf(whole.at, near) })
  for (let p = known; p < piece.at.length; p += 3)
    piece.at.set(carried(fit, Array.from(whole.at.subarray(p, p + 3))), p)
  piece.at.set(before.at)
}

const nearMm = 8
const fewest = 8

/** Points of the old beads that lie near a new one in the finished piece. */
function nearNew(whole: Piece, old: number, all: number): Int32Array {
  const fresh = Array.from({ length: all - old }, (_, k) => centreOf(whole, old + k))
  const points: number[] = []
  for (let bead = 0; bead < old; bead++) {
    const [x, y, z] = centreOf(whole, bead)
    if (!fresh.some(([a, b, c]) => Math.hypot(a - x, b - y, c - z) < nearMm)) continue
    for (let p = 2 * (whole.rodOf[bead] as number); p < 2 * (whole.rodOf[bead + 1] as number); p++) points.push(p)
  }
  return points.length >= fewest
    ? Int32Array.from(points)
    : Int32Array.from({ length: 2 * (whole.rodOf[old] as number) }, (_, p) => p)
}

/** Turns a part of a piece as the whole lies. */
function turnAs(piece: Piece, whole: Piece): void {
  const points = Int32Array.from({ length: piece.at.length / 3 }, (_, p) => p)
  const fit = fitOf(whole.at, { points, places: Float64Array.from(piece.at) })
  for (let p = 0; p < piece.at.length; p += 3) piece.at.set(carried(fit, Array.from(piece.at.subarray(p, p + 3))), p)
  for (const { at, front, right } of piece.solids) {
    at.set(carried(fit, Array.from(at)))
    for (const way of [front, right]) way.set(turnedBy(fit, Array.from(way)))
  }
}

const placesOf = (at: Float64Array, points: Int32Array): Float64Array =>
  Float64Array.from(
    { length: points.length * 3 },
    (_, i) => at[3 * (points[Math.floor(i / 3)] as number) + (i % 3)] as number,
  )
