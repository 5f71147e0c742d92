/**
 * Nominal records by kind and size: what a pattern is planned with until a colourway names a maker's bead.
 * Good within a few per cent; a maker's record or a lot's measurement always wins over these.
 */
import type { Mm } from '../measure/units'
import { type Bead, normalSize } from './bead'

type Row = readonly [
  size: string,
  length: number,
  across: number,
  bore: number,
  mg: number,
  wide?: number,
  /** Between two bores, or from the one bore to the middle. */
  off?: number,
]

/** Pressed or drawn glass of about 2.5 g/cm3: the mass of a pearl of diameter `d`, less its bore. */
const pearlMass = (d: number, bore: number) =>
  Math.round(2.5 * ((Math.PI / 6) * d ** 3 - (Math.PI / 4) * bore ** 2 * d))

const kinds: readonly { kind: string; contact: number; shoulder?: number; bores: 1 | 2; rows: readonly Row[] }[] = [
  {
    kind: 'round',
    contact: 2.5,
    shoulder: 1.4,
    bores: 1,
    rows: [
      ['15/0', 1.0, 1.5, 0.6, 3.6],
      ['11/0', 1.5, 2.1, 0.8, 9.1],
      ['10/0', 1.65, 2.3, 0.85, 12.5],
      ['8/0', 2.1, 3.1, 1.0, 26],
      ['6/0', 3.0, 4.0, 1.4, 70],
    ],
  },
  {
    kind: 'cylinder',
    contact: 4,
    bores: 1,
    rows: [
      ['15/0', 1.0, 1.3, 0.65, 2.7],
      ['11/0', 1.3, 1.6, 0.8, 5.2],
      ['10/0', 1.7, 2.2, 1.0, 9.3],
      ['8/0', 2.6, 3.0, 1.3, 34],
    ],
  },
  {
    kind: 'bugle',
    contact: 4,
    shoulder: 1.4,
    bores: 1,
    rows: [
      ['3 mm', 3, 1.9, 0.7, 15],
      ['6 mm', 6, 1.9, 0.7, 33],
    ],
  },
  {
    kind: 'bicone',
    contact: 1.2,
    bores: 1,
    rows: [
      ['2 mm', 2, 2, 0.6, 8],
      ['3 mm', 3, 3, 0.8, 27],
      ['4 mm', 4, 4, 0.9, 65],
      ['6 mm', 6, 6, 1.0, 215],
      ['8 mm', 8, 8, 1.2, 500],
    ],
  },
  {
    kind: 'faceted round',
    contact: 2,
    shoulder: 1.6,
    bores: 1,
    rows: [
      ['2 mm', 2, 2, 0.7, 10],
      ['3 mm', 3, 3, 0.8, 34],
      ['4 mm', 4, 4, 0.9, 80],
      ['6 mm', 6, 6, 1.0, 270],
      ['8 mm', 8, 8, 1.2, 640],
    ],
  },
  {
    kind: 'pearl round',
    contact: 2,
    bores: 1,
    rows: (
      [
        [3, 0.7],
        [4, 0.75],
        [6, 0.8],
        [8, 0.9],
        [10, 1.0],
        [12, 1.0],
      ] as const
    ).map(([d, bore]) => [`${d} mm`, d, d, bore, pearlMass(d, bore)] as const),
  },
  { kind: 'cube', contact: 6, bores: 1, rows: [['4 mm', 4, 4, 1, 150]] },
  { kind: 'twin oval', contact: 2, bores: 2, rows: [['2.5 x 5 mm', 2.5, 2.5, 0.8, 75, 5, 2.5]] },
  { kind: 'twin tile', contact: 6, bores: 2, rows: [['5 x 5 x 1.9 mm', 5, 1.9, 0.8, 130, 5, 2.5]] },
  { kind: 'twin half tile', contact: 6, bores: 2, rows: [['5 x 2.3 x 1.9 mm', 2.3, 1.9, 0.8, 65, 5, 2.5]] },
  { kind: 'twin crescent', contact: 2, bores: 2, rows: [['3 x 10 mm', 3, 2.5, 0.8, 160, 10, 5]] },
  { kind: 'twin triangle', contact: 4, bores: 2, rows: [['6 mm', 3.03, 2.2, 0.8, 80, 6, 2.5]] },
  { kind: 'twin lentil', contact: 2, bores: 2, rows: [['6 mm', 5.2, 2.8, 0.8, 125, 6, 3]] },
  {
    kind: 'drop',
    contact: 2,
    bores: 1,
    rows: [
      ['4 x 6 mm', 2.4, 4, 0.8, 110, 6, 1.55],
      ['6 x 9 mm', 3.6, 6, 1, 370, 9, 2.33],
    ],
  },
  {
    kind: 'dagger',
    contact: 2,
    bores: 1,
    rows: [
      ['3 x 10 mm', 1.8, 2, 0.8, 80, 10, 3.6],
      ['5 x 16 mm', 3, 3, 1, 330, 16, 5.76],
    ],
  },
  // Two bores that cross in its middle.
  {
    kind: 'cross drilled round',
    contact: 2,
    bores: 2,
    rows: [
      ['4 mm', 4, 4, 0.8, 75, 4],
      ['6 mm', 6, 6, 1, 250, 6],
    ],
  },
]

export const nominalBeads: readonly Bead[] = kinds.flatMap(({ kind, contact, bores, rows }) =>
  rows.map(([size, lengthMm, acrossMm, boreMm, massMg, wideMm, off]) => ({
    ...(wideMm ? { wideMm } : {}),
    ...(off ? (bores === 2 ? { boreGapMm: off } : { offMm: off }) : {}),
    kind,
    size,
    lengthMm,
    acrossMm,
    boreMm,
    massMg,
    contact,
    bores,
  })),
)

/** Kinds the notation knows, longest name first so that "twin half tile" is found before a shorter one. */
export const beadKinds: readonly string[] = [...new Set(nominalBeads.map((bead) => bead.kind))].sort(
  (a, b) => b.length - a.length,
)

export function nominalBead(kind: string, size: string): Bead | undefined {
  const known = nominalBeads.find((bead) => bead.kind === kind && bead.size === normalSize(size))
  return (
    known ?? (kind === 'bugle' ? bugleOf(size) : kind === 'drop' || kind === 'dagger' ? hanging(kind, size) : undefined)
  )
}

/** Bugles are cut to any length from one tube: the mass grows with it. */
function bugleOf(size: string): Bead | undefined {
  const lengthMm = Number(/^(\d+(?:\.\d+)?) mm$/.exec(normalSize(size))?.[1])
  if (!(lengthMm >= 2 && lengthMm <= 40)) return undefined
  const six = nominalBead('bugle', '6 mm') as Bead
  return { ...six, size: `${lengthMm} mm`, lengthMm, massMg: Math.round((six.massMg * lengthMm) / six.lengthMm) }
}

/** Drops and daggers are pressed in any size: across by long, in the proportions of the nearest that is known. */
function hanging(kind: 'drop' | 'dagger', size: string): Bead | undefined {
  const asked = /^(\d+(?:\.\d+)?) x (\d+(?:\.\d+)?) mm$/.exec(normalSize(size))
  const [across, long] = [Number(asked?.[1]), Number(asked?.[2])]
  if (!(across >= 2 && long >= across && long <= 40)) return undefined
  const like = nominalBead(kind, kind === 'drop' ? '4 x 6 mm' : '3 x 10 mm') as Bead & { wideMm: Mm; offMm: Mm }
  const [thicker, longer] = [across / (kind === 'drop' ? 4 : 3), long / like.wideMm]
  return {
    ...like,
    size: `${across} x ${long} mm`,
    lengthMm: like.lengthMm * thicker,
    acrossMm: like.acrossMm * thicker,
    massMg: Math.round(like.massMg * thicker ** 2 * longer),
    wideMm: long,
    offMm: like.offMm * longer,
  }
}

/**
 * A bead with its measures across the hole: a record that does not tell them has the proportions of its kind.
 * A bead that lies the same all round its hole is answered as it is.
 */
export function wholeOf(bead: Bead): Bead {
  const like = nominalBead(bead.kind, bead.size) ?? nominalBeads.find(({ kind }) => kind === bead.kind)
  const proportions = like?.wideMm ? like : bead.bores === 2 ? twinLike : undefined
  if (!proportions?.wideMm) return bead
  const wideMm = bead.wideMm ?? (bead.acrossMm * proportions.wideMm) / proportions.acrossMm
  const share = wideMm / proportions.wideMm
  const { boreGapMm, offMm } = proportions
  return {
    ...bead,
    wideMm,
    ...(boreGapMm ? { boreGapMm: bead.boreGapMm ?? boreGapMm * share } : {}),
    ...(offMm ? { offMm: bead.offMm ?? offMm * share } : {}),
  }
}

/** Of a kind with two bores that the catalogue does not know: twice as wide as thick, its bores half that apart. */
const twinLike = { wideMm: 2, acrossMm: 1, boreGapMm: 1, offMm: undefined }

/**
 * The exponent of the contact surface half-way between the hole and the belly, where beads that meet at a right angle rest on each other's
 * shoulders. Calibrated on the pitch of right-angle strips at the bench: 2.05 to 2.25 mm for round 11/0, 5.0 to 5.4 mm for faceted rounds
 * of 4 mm, L + 0.3 d for bugles. Kinds that are not told keep their own exponent all round.
 */
export const shoulderOf = ({ kind, contact }: Pick<Bead, 'kind' | 'contact'>): number =>
  kinds.find((each) => each.kind === kind)?.shoulder ?? contact

export const nominalSizes = (kind: string): string[] =>
  nominalBeads.filter((bead) => bead.kind === kind).map((bead) => bead.size)
