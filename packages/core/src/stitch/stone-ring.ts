/** Which ring a stone is laid in: the one in hand, unless another row there fits the stone and that one does not. */
import type { Stone } from '../catalogue/stone'
import type { Mm } from '../measure/units'
import type { Span } from '../notation/fault'
import { girth } from '../sizing/girth'
import { easeOf, type FitVerdict } from '../sizing/ring-fit'
import { beadOf, type Hole, hole } from './hole'
import { holesOf } from './rail'
import type { StitchMachine } from './stitch-machine'

export interface StoneRing {
  readonly holes: readonly Hole[]
  /** Undefined for a ring that was gathered by hand and is none of the piece's rows. */
  readonly course: number | undefined
  readonly lengthMm: Mm
  readonly ease: number
  readonly verdict: FitVerdict
}

/** A ring this far off its stone may be meant for something else, where another row is no farther off than `fits`. */
const far = 0.25
const fits = 0.15

/**
 * @param place where the line says that it goes: holes of the ring; undefined where it says nothing
 * @throws LineFault when there is no ring, or when several would do and none is in hand
 */
export function ringForStone(
  { letter, stone }: { letter: string; stone: Stone },
  place: readonly Hole[] | undefined,
  machine: StitchMachine,
  span: Span,
): StoneRing {
  const rail = machine.edges.rails[machine.edges.inHand]
  const inHand = place
    ? candidatesOf(place, machine, stone)
    : rail?.closed
      ? [
          ...candidatesOf(holesOf(rail), machine, stone),
          ...(machine.edges.gathered ? [ringOf(machine.edges.gathered, undefined, machine, stone)] : []),
        ]
      : []
  const best = likeliest(inHand)
  if (best && (place || Math.abs(best.ease) <= far)) return best
  const everywhere = ringsOf(machine, stone).filter(({ course }) => !machine.work.cores.has(course as number))
  const fitting = everywhere.filter(({ ease }) => Math.abs(ease) <= fits)
  const [only] = fitting
  if (only && fitting.length === 1) return only
  if (best) return best
  const [single] = everywhere
  if (single && everywhere.length === 1) return single
  const names = (everywhere.length > 0 ? everywhere : ringsOf(machine, stone)).map((ring) => nameOf(ring, machine))
  throw machine.missing(
    span,
    names.length === 0
      ? `There is no ring yet for ${letter} to lie in.`
      : everywhere.length === 0
        ? `Every ring holds a stone already: ${names.join(', ')}.`
        : `${letter} could lie in any of these: ${names.join(', ')}.`,
    names.length === 0
      ? `String one first, for example: ring 36A. Or gather the beads that go round it: rail seat = ..., then place ${letter}.`
      : `Say which by its name: ring 36A as wall, then place ${letter} in wall.`,
  )
}

/** The first of them that fits; where none does, the first of all, on which the others were stitched. */
function likeliest(rings: readonly StoneRing[]): StoneRing | undefined {
  const [first, ...others] = rings
  if (!first || Math.abs(first.ease) <= far) return first
  const off = ({ ease }: StoneRing) => Math.abs(ease)
  return others.filter((ring) => off(ring) <= fits).sort((a, b) => off(a) - off(b))[0] ?? first
}

/** The rows under some holes, the first row before the others; or the holes themselves, where they are in no row together. */
function candidatesOf(holes: readonly Hole[], machine: StitchMachine, stone: Stone): StoneRing[] {
  const { work } = machine
  const courses = new Set(holes.map((h) => work.seat(beadOf(h)).course))
  const roots = new Set([...courses].map((course) => (course < 0 ? -1 : work.firstOf(course))))
  const [root] = roots
  if (root === undefined || root < 0 || roots.size > 1 || work.courses[root]?.kind === 'row')
    return holes.length > 2 ? [ringOf(holes, undefined, machine, stone)] : []
  const top = Math.max(...courses)
  const rows: StoneRing[] = []
  for (let course = top; ; ) {
    rows.unshift(rowOf(course, machine, stone))
    const found = work.courses[course]
    if (!found || !('on' in found) || found.on === undefined) break
    course = found.on
  }
  return rows
}

/** The first rows of everything so far. */
const ringsOf = (machine: StitchMachine, stone: Stone): StoneRing[] =>
  machine.work.courses.flatMap(({ kind }, course) =>
    kind === 'ring' || (kind === 'standing' && machine.work.firstOf(course) === course)
      ? [rowOf(course, machine, stone)]
      : [],
  )

function rowOf(course: number, machine: StitchMachine, stone: Stone): StoneRing {
  const { work } = machine
  const holes: Hole[] = []
  for (let bead = 0; bead < work.beads; bead++) if (work.seat(bead).course === course) holes.push(hole(bead))
  return ringOf(holes, course, machine, stone)
}

function ringOf(holes: readonly Hole[], course: number | undefined, machine: StitchMachine, stone: Stone): StoneRing {
  const { work } = machine
  const row = course === undefined ? undefined : work.courses[course]
  const sum = (of: (role: number) => Mm) => holes.reduce((total, h) => total + of(work.role(beadOf(h))), 0)
  let lengthMm = sum(machine.roles.lengthOf)
  if (row?.kind === 'gaps') {
    lengthMm = 0
    for (let pass = row.from; pass < row.to; pass++)
      lengthMm += machine.roles.lengthOf(work.role(beadOf(work.holeAt(pass))))
  }
  if (row?.kind === 'standing') lengthMm = 2 * Math.PI * row.radiusMm
  const acrossMm = sum(machine.roles.acrossOf) / Math.max(1, holes.length)
  return { holes, course, lengthMm, ...easeOf(lengthMm, girth(stone.outline), acrossMm) }
}

function nameOf({ holes, course }: StoneRing, machine: StitchMachine): string {
  const beads = new Set(holes.map(beadOf))
  const name = machine
    .markNames()
    .find(
      (each) => machine.marked(each)?.length === beads.size && machine.marked(each)?.every((h) => beads.has(beadOf(h))),
    )
  const line = course === undefined ? undefined : machine.lines[machine.work.statementOfBead(beadOf(holes[0] as Hole))]
  return `${name ? `${name}, ` : ''}the ring of ${holes.length}${line === undefined ? '' : ` of line ${line}`}`
}
