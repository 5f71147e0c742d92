import type { Mm } from '../measure/units'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { Measures, Strain } from '../report/measures'
import { marginNeeded } from '../sizing/stone-hold'
import { beadOf, entryOf, exitOf } from '../stitch/hole'
import type { Work } from '../stitch/work'
import { stitchGapLength } from '../thread/stitch-gap'
import { alongOf } from './along'
import { extentsOf } from './extents'
import type { Form } from './form'
import { centreOf, meanOf, type Piece, pointAt, shapeOfBead, slackMm } from './piece'
import { planeOf } from './plane'
import { support } from './reach'
import { pitchOf, runsOf } from './run'
import { radiiOf, radiusToward } from './solid'
import { touchingIn } from './touching'
import { add, cross, dot, minus, scaled, size, unit, type Vector, vectorOf } from './vector'

/** Beyond what the stitch leaves between two beads. */
const openMm: Mm = 0.4

const pressedShare = 0.1

export function measure(evaluated: EvaluatedPattern, form: Form): Measures {
  const { piece } = form
  const [widthMm, heightMm, depthMm] = extentsOf(piece)
  const runs = runsOf(evaluated, piece)
  return {
    widthMm,
    heightMm,
    depthMm,
    spreadMm: form.settling.spreadMm,
    openings: openingsOf(piece),
    pitches: runs.flatMap((run) => pitchOf(run) ?? []),
    along: alongOf(piece, runs),
    lie: lieOf(piece),
    held: heldIn(evaluated, form),
    touching: touchingIn(form, evaluated.letterOf),
  }
}

/** Where thread does not reach, and where beads are pressed, line by line. */
export const strainOf = (form: Form): Strain[] =>
  [...strainOfThread(form.piece), ...strainOfBeads(form)].sort((a, b) => a.statement - b.statement)

/** Beads of each row, in the order in which they were picked up. */
function rowsOf(work: Work): number[][] {
  const rows: number[][] = work.courses.map(() => [])
  for (let bead = 0; bead < work.beads; bead++) {
    const { course } = work.seat(bead)
    if (course >= 0) (rows[course] as number[]).push(bead)
  }
  return rows
}

/** Rows that nothing was stitched on. */
function edgesOf(work: Work): number[] {
  const under = new Set<number>()
  for (const course of work.courses) if ('on' in course && course.on !== undefined) under.add(course.on)
  return work.courses.flatMap((course, index) => (course.kind !== 'row' && !under.has(index) ? [index] : []))
}

function openingsOf(piece: Piece): Measures['openings'] {
  const { work } = piece
  const rows = rowsOf(work)
  return edgesOf(work).flatMap((index) => {
    const row = rows[index] ?? []
    const kind = work.courses[work.firstOf(index)]?.kind
    if (kind !== 'ring' || row.length < 3) return []
    const middle = meanOf(piece, row)
    const free = row.map((bead) => {
      const away = minus(centreOf(piece, bead), middle)
      const distance = size(away)
      return distance - support(piece, bead, unit(scaled(away, -1), [1, 0, 0]))
    })
    const acrossMm = 2 * Math.max(0, free.reduce((sum, each) => sum + each, 0) / free.length)
    return [{ statement: work.statementOfBead(row[0] as number), acrossMm }]
  })
}

/** An edge ruffles where it is longer by this share than it would be pressed flat: shallower waves lie flat to the eye. */
const longerInWaves = 0.08

/** In widths of the usual bead: one large bead does not make a cup flat. */
const flattest = 0.35

export function lieOf(piece: Piece): Measures['lie'] {
  const { work } = piece
  const all = Array.from({ length: work.beads }, (_, bead) => centreOf(piece, bead))
  const plane = planeOf(all)
  const awayMm = all.reduce((most, each) => Math.max(most, Math.abs(dot(minus(each, plane.middle), plane.normal))), 0)
  const across = all.reduce((sum, _, bead) => sum + shapeOfBead(piece, bead).bead.acrossMm, 0) / all.length
  const flat = awayMm < flattest * across
  const rows = rowsOf(work)
  const closed = edgesOf(work).filter((index) => {
    const kind = work.courses[work.firstOf(index)]?.kind
    return kind === 'ring' || kind === 'standing'
  })
  const widest = closed
    .map((index) => ({ index, row: rows[index] ?? [] }))
    .filter(({ row }) => row.length >= 6)
    .map(({ index, row }) => {
      const middle = meanOf(piece, row)
      return {
        index,
        row,
        radius: row.reduce((sum, bead) => sum + size(minus(centreOf(piece, bead), middle)), 0) / row.length,
      }
    })
    .sort((a, b) => b.radius - a.radius || b.index - a.index)[0]
  if (!widest) return { awayMm, flat, cupMm: 0, ruffles: 0 }
  const first = rows[work.firstOf(widest.index)] ?? []
  const base = planeOf(first.map((bead) => centreOf(piece, bead)))
  const facing = base.normal[2] < 0 ? -1 : 1
  const cupMm =
    widest.index === work.firstOf(widest.index)
      ? 0
      : facing * dot(minus(meanOf(piece, widest.row), base.middle), base.normal)
  const inOrder = [...widest.row].sort((a, b) => work.seat(a).turn - work.seat(b).turn)
  const places = inOrder.map((bead) => centreOf(piece, bead))
  const middle = meanOf(piece, inOrder)
  const least = 0.25 * shapeOfBead(piece, inOrder[0] as number).bead.acrossMm
  const sides: number[] = []
  let [long, pressed] = [0, 0]
  for (const [i, place] of places.entries()) {
    const step = minus(place, places.at(i - 1) as Vector)
    long += size(step)
    pressed += size(minus(step, scaled(base.normal, dot(step, base.normal))))
    // Against the plane that the work began in: of a saddle the rim itself has none.
    const off = dot(minus(place, middle), base.normal)
    if (Math.abs(off) >= least) sides.push(Math.sign(off))
  }
  // All the way round, from the last to the first: as often up as down.
  const ruffles = sides.filter((side, i) => side !== sides.at(i - 1)).length
  return { awayMm, flat, cupMm, ruffles: long > pressed * (1 + longerInWaves) ? ruffles : 0 }
}

/** The edges in front and behind against the stone's widest line: what is smaller cannot pass it. */
export function heldIn({ roles }: EvaluatedPattern, { piece, seats }: Form): Measures['held'] {
  const { work } = piece
  const rows = rowsOf(work)
  const edges = edgesOf(work)
  return seats.flatMap(({ course: root, stone: letter, solid }) => {
    const role = letter === undefined ? undefined : roles.get(letter)
    if (role?.type !== 'stone' || !solid || work.courses[root]?.kind === 'standing') return []
    const radii = radiiOf(role.stone)
    const [front, right] = [vectorOf(solid.front), vectorOf(solid.right)]
    const up = cross(front, right)
    /** From the stone's widest line in to the inner side of a bead. */
    const within = (bead: number): Mm => {
      const away = minus(centreOf(piece, bead), vectorOf(solid.at))
      const [x, y] = [dot(away, right), dot(away, up)]
      const inward = unit(add(scaled(right, -x), scaled(up, -y)), scaled(right, -1))
      return radiusToward(radii, x, y) - (Math.hypot(x, y) - support(piece, bead, inward))
    }
    const mean = (beads: readonly number[]) => beads.reduce((sum, bead) => sum + within(bead), 0) / beads.length
    const margins = edges
      .filter((index) => work.isOn(index, root))
      .flatMap((index) => {
        const row = rows[index] ?? []
        if (row.length < 3) return []
        const z = dot(minus(meanOf(piece, row), vectorOf(solid.at)), front)
        return [{ z, over: mean(row) }]
      })
      .sort((a, b) => a.z - b.z)
    const before = margins.filter(({ z }) => z > 0).at(-1)
    const behind = margins.filter(({ z }) => z <= 0)[0]
    const first = rows[root] ?? []
    return [
      {
        stone: role.letter,
        frontMm: before?.over,
        backMm: behind?.over,
        playMm: first.length > 0 ? Math.max(0, -mean(first)) : 0,
        neededMm: marginNeeded(2 * solid.narrowMm),
      },
    ]
  })
}

const gapOf = ({ at }: Piece, a: number, b: number): Mm =>
  Math.hypot(
    (at[3 * b] as number) - (at[3 * a] as number),
    (at[3 * b + 1] as number) - (at[3 * a + 1] as number),
    (at[3 * b + 2] as number) - (at[3 * a + 2] as number),
  )

type Tally = { places: number; worstMm: Mm; missingMm: Mm; of: number }

function strainOfThread(piece: Piece): Strain[] {
  const { threads, natural, laidBy, within } = piece
  const found = new Map<number, Tally>()
  for (let t = 0; t < laidBy.length; t++) {
    if (within[t]) continue
    const gap = gapOf(piece, threads[2 * t] as number, threads[2 * t + 1] as number)
    note(found, laidBy[t] as number, gap - (natural[t] as number) - slackMm, openMm)
  }
  return strained(found, 'thread')
}

function strainOfBeads({ piece, settling }: Form): Strain[] {
  const found = new Map<number, Tally>()
  for (const { a, b, overMm } of settling.pressed()) {
    const least = Math.min(shapeOfBead(piece, a).bead.acrossMm, shapeOfBead(piece, b).bead.acrossMm)
    note(found, piece.work.statementOfBead(Math.max(a, b)), overMm, pressedShare * least)
  }
  return strained(found, 'pressed')
}

function note(found: Map<number, Tally>, statement: number, over: Mm, allowed: Mm): void {
  const known = found.get(statement) ?? { places: 0, worstMm: 0, missingMm: 0, of: 0 }
  found.set(statement, known)
  known.of++
  if (over <= allowed) return
  known.places++
  known.worstMm = Math.max(known.worstMm, over)
  known.missingMm += over
}

const strained = (found: ReadonlyMap<number, Tally>, what: Strain['what']): Strain[] =>
  [...found].filter(([, { places }]) => places > 0).map(([statement, tally]) => ({ statement, what, ...tally }))

/** Of each pass: its bead and the gap before it. What goes round an end or under a bridge is taken by stitch; every other gap is measured. */
export function threadLaid(piece: Piece): Float64Array {
  const { work } = piece
  const laid = new Float64Array(work.passes)
  for (let pass = 0; pass < work.passes; pass++) {
    const h = work.holeAt(pass)
    const { lengthMm, acrossMm } = shapeOfBead(piece, beadOf(h)).bead
    laid[pass] = lengthMm
    const before = work.beforePass(pass)
    if (before === undefined) continue
    const stitchGap = work.gapAt(pass)
    const byStitch = stitchGap === 'brick' || stitchGap === 'fringe turn'
    laid[pass] =
      lengthMm +
      (byStitch
        ? stitchGapLength(stitchGap, shapeOfBead(piece, beadOf(before)).bead.acrossMm, acrossMm)
        : gapOf(piece, pointAt(piece, exitOf(before)), pointAt(piece, entryOf(h))))
  }
  return laid
}
