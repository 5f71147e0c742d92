/** How far a bead reaches from its middle, by direction: the surface that contact keeps apart. */
import type { Bead } from '../catalogue/bead'
import { shoulderOf, wholeOf } from '../catalogue/nominal-beads'
import { type Outline, outlineOf } from '../catalogue/outline'
import type { Mm } from '../measure/units'

/**
 * Of a bead that does not lie the same all round its hole: where its four points and its contact centres are, along the hole and across it
 * the wide way, from its middle. Its second bore tells how it has turned; in a bead that hangs from one hole no thread goes through it, and
 * it lies as far beyond the middle as the hole does before it.
 */
export interface Frame {
  readonly wideMm: Mm
  /** Two numbers a point. */
  readonly points: readonly number[]
  readonly lobes: readonly Lobe[]
  readonly outline: Outline | undefined
}

/** A contact centre, and the box that its superellipsoid fits in. */
export interface Lobe {
  readonly along: Mm
  readonly wide: Mm
  readonly halfLength: Mm
  readonly halfWide: Mm
  readonly halfThick: Mm
  readonly contact: number
}

export const pointsOfFrame = 4

/** What the shape needs of a bead; beads of one record share it. */
export interface Shape {
  /** With its measures across the hole. */
  readonly bead: Bead
  readonly frame: Frame | undefined
  /** Contact centres along the rod: one, or several where a bead is longer than twice its width; or those of the frame. */
  readonly centres: number
  /** The reach and its slope, two numbers each, at even steps of the squared cosine between the direction and the hole. */
  readonly reach: Float64Array
  /** The same toward a bead that lies across: its shoulder rests on the other's. Undefined where it makes no difference. */
  readonly crossing: Float64Array | undefined
  readonly farthest: Mm
}

export const reachSteps = 128

/**
 * A superellipsoid about the hole: `((c / (L/2))^p + (s / (d/2))^p)^(-1/p)` with c and s the cosine and sine of the angle between
 * direction and hole. End to end beads come as close as L, side by side as d.
 *
 * @param cosine 0 to 1
 */
export function reachOf(lengthMm: Mm, acrossMm: Mm, contact: number, cosine: number): Mm {
  const squared = cosine * cosine
  // A tip is blunt: it ends in the rim of the hole.
  const sine = (Math.sqrt(Math.max(0, 1 - squared) + blunt) - bluntTip) / (Math.sqrt(1 + blunt) - bluntTip)
  const beside = sine / (acrossMm / 2)
  return ((cosine / (lengthMm / 2)) ** contact + beside ** contact) ** (-1 / contact)
}

const blunt = 0.01
const bluntTip = Math.sqrt(blunt)

/** A bead whose record cannot be a bead's. */
export class NoShape extends Error {
  constructor(readonly bead: Bead) {
    super(`${bead.kind} ${bead.size} has a length, width or contact exponent that no bead has.`)
  }
}

const likely = (value: number, most: number) => value >= 0.05 && value <= most

/** @throws NoShape for figures that are not above 0, or beyond any bead */
export function shapeOf(record: Bead): Shape {
  const bead = wholeOf(record)
  const { lengthMm, acrossMm, contact } = bead
  if (!likely(lengthMm, 200) || !likely(acrossMm, 200) || !likely(contact, 50)) throw new NoShape(bead)
  const frame = bead.wideMm === undefined ? undefined : frameOf(bead, bead.wideMm)
  const rodCentres = lengthMm <= 2 * acrossMm ? 1 : Math.ceil(lengthMm / acrossMm)
  const centres = frame?.lobes.length ?? rodCentres
  const table = (exponent: number) =>
    tableOf((squared) => reachOf(lengthMm / rodCentres, acrossMm, exponent, Math.sqrt(squared)))
  const reach = table(contact)
  const shoulder = shoulderOf(bead)
  const crossing = shoulder === contact ? undefined : table(shoulder)
  const farthest = frame
    ? Math.max(...frame.lobes.map(({ halfLength, halfWide, halfThick }) => Math.hypot(halfLength, halfWide, halfThick)))
    : reach.reduce((most, each, i) => (i % 2 === 0 ? Math.max(most, each) : most), 0) * 1.01
  return { bead, frame, centres, reach, crossing, farthest }
}

function frameOf(bead: Bead, wideMm: Mm): Frame {
  const { lengthMm, acrossMm, contact, boreGapMm, offMm } = bead
  const half = lengthMm / 2
  const off = offMm ?? (boreGapMm ?? 0) / 2
  const points = off > 0 ? [-half, -off, half, -off, -half, off, half, off] : [-half, 0, half, 0, 0, -half, 0, half]
  const outline = outlineOf(bead)
  const whole = { along: 0, wide: 0, halfLength: half, halfWide: wideMm / 2, halfThick: acrossMm / 2, contact }
  return { wideMm, points, lobes: outline ? lobesOf(outline, whole) : [whole], outline }
}

/** Slices across an outline are told from their neighbours by so much of their width. */
const overlaps = 0.15
/** A slice ends flat, where the next begins. */
const slicedContact = 3
const maxLobes = 5

/** Slices about as wide as they are long. */
function lobesOf({ turned, stations }: Outline, whole: Lobe): Lobe[] {
  const [low, high] = [stations[0]?.[0] ?? 0, stations[stations.length - 1]?.[0] ?? 0]
  const mean = stations.reduce((sum, [, from, to]) => sum + to - from, 0) / stations.length
  const count = Math.min(maxLobes, Math.max(2, Math.round((high - low) / mean)))
  const each = (high - low) / count
  return Array.from({ length: count }, (_, k) => {
    const [begin, end] = [low + k * each, low + (k + 1) * each]
    const samples = Array.from({ length: 9 }, (_, i) => chordAt(stations, begin + (each * (i + 0.5)) / 9))
    const along = samples.reduce((sum, [from, to]) => sum + (from + to) / 2, 0) / samples.length
    const halfLength = samples.reduce((sum, [from, to]) => sum + (to - from) / 2, 0) / samples.length
    const from = k === 0 ? begin : begin - overlaps * each
    const to = k === count - 1 ? end : end + overlaps * each
    return {
      along,
      wide: (from + to) / 2,
      halfLength,
      halfWide: (to - from) / 2,
      halfThick: turned ? halfLength : whole.halfThick,
      contact: Math.max(slicedContact, whole.contact),
    }
  })
}

function chordAt(stations: Outline['stations'], wide: Mm): readonly [from: Mm, to: Mm] {
  const next = Math.max(
    1,
    stations.findIndex(([at]) => at >= wide),
  )
  const [a, b] = [stations[next - 1], stations[next]] as [readonly [Mm, Mm, Mm], readonly [Mm, Mm, Mm]]
  const t = (wide - a[0]) / (b[0] - a[0])
  return [a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])]
}

function tableOf(at: (squared: number) => Mm): Float64Array {
  const table = new Float64Array((reachSteps + 2) * 2)
  const step = 1 / reachSteps
  for (let i = 0; i <= reachSteps + 1; i++) {
    const squared = Math.min(1, i * step)
    const [before, after] = [Math.max(0, squared - step / 4), Math.min(1, squared + step / 4)]
    table[2 * i] = at(squared)
    table[2 * i + 1] = ((at(after) - at(before)) / (after - before)) * step
  }
  return table
}
