/** How far a bead reaches from its middle, by direction: the surface that contact keeps apart. */
import type { Bead } from '../catalogue/bead'
import { nominalBead, shoulderOf } from '../catalogue/nominal-beads'
import type { Mm } from '../measure/units'

/** What the shape needs of a bead; beads of one record share it. */
export interface Shape {
  readonly bead: Bead
  /** Of a bead with two bores: across both, and between their middles. */
  readonly twin: { readonly wideMm: Mm; readonly gapMm: Mm } | undefined
  /** Contact centres along the rod: one, or several where a bead is longer than twice its width. */
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

/** @throws NoShape for figures that are not above nought, or beyond any bead */
export function shapeOf(bead: Bead): Shape {
  const { lengthMm, acrossMm, contact, bores } = bead
  if (!likely(lengthMm, 200) || !likely(acrossMm, 200) || !likely(contact, 50)) throw new NoShape(bead)
  const twin = bores === 2 ? twinOf(bead) : undefined
  const centres = twin || lengthMm <= 2 * acrossMm ? 1 : Math.ceil(lengthMm / acrossMm)
  const table = (exponent: number) =>
    tableOf((squared) => reachOf(lengthMm / centres, acrossMm, exponent, Math.sqrt(squared)))
  const reach = table(contact)
  const shoulder = shoulderOf(bead)
  const crossing = shoulder === contact ? undefined : table(shoulder)
  const farthest = twin
    ? Math.hypot(lengthMm, twin.wideMm, acrossMm) / 2
    : reach.reduce((most, each, i) => (i % 2 === 0 ? Math.max(most, each) : most), 0) * 1.01
  return { bead, twin, centres, reach, crossing, farthest }
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

/** A record that does not say how wide a bead with two bores is has the proportions of its kind; the bores lie half that apart. */
function twinOf(bead: Bead): NonNullable<Shape['twin']> {
  const nominal = nominalBead(bead.kind, bead.size)
  const share = nominal?.wideMm ? nominal.wideMm / nominal.acrossMm : 2
  const wideMm = bead.wideMm ?? bead.acrossMm * share
  return { wideMm, gapMm: bead.boreGapMm ?? wideMm / 2 }
}
