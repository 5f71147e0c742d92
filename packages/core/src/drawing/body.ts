/**
 * What a bead looks like: one description of each shape, from which the drawing takes its outline and its lines and the stage its solid.
 * Measures in mm about the bead's middle.
 */
import type { Bead } from '../catalogue/bead'
import { type Outline, outlineOf } from '../catalogue/outline'
import type { Mm } from '../measure/units'

/** Turned as on a lathe, about the hole or about the way across it: along that, and out from it. */
export interface TurnedBody {
  readonly type: 'turned'
  readonly about: 'hole' | 'across'
  readonly profile: readonly (readonly [along: Mm, out: Mm])[]
  /** Places of the profile at which the surface has an edge that runs round. */
  readonly edges: readonly number[]
  /** Edges along it from one of those to the next; 0 for a smooth one. */
  readonly facets: number
  /** Turned across: where its hole lies. Undefined for none but the one it is turned about. */
  readonly holeAt?: Mm
  /** A second hole crosses the first in the middle. */
  readonly crossed?: boolean
}

/** A flat outline, along the holes and across them, so thick. */
export interface FlatBody {
  readonly type: 'flat'
  readonly outline: readonly (readonly [along: Mm, wide: Mm])[]
  readonly thick: Mm
  /** Convex parts that make up an outline that is not convex. */
  readonly parts?: readonly (readonly (readonly [along: Mm, wide: Mm])[])[]
  /** Its edges are cut, and seen. */
  readonly sharp: boolean
  readonly holes: readonly { readonly wide: Mm; readonly halfLength: Mm }[]
}

export type Body = TurnedBody | FlatBody

/** The measures that a body follows from. */
export type BodyMeasures = Pick<
  Bead,
  'kind' | 'lengthMm' | 'acrossMm' | 'boreMm' | 'contact' | 'bores' | 'wideMm' | 'boreGapMm' | 'offMm'
>

/** Whether it looks the same from every side about its hole, and from either end of it. */
export const sameAllRound = (body: Body): boolean =>
  body.type === 'turned' && body.about === 'hole' && body.crossed !== true

const smooth = 12

export function bodyOf(bead: BodyMeasures): Body {
  const { kind, lengthMm, acrossMm, wideMm, boreGapMm } = bead
  const outline = outlineOf(bead)
  if (outline) return outlined(bead, outline)
  if (wideMm !== undefined && boreGapMm !== undefined) {
    const holes = [-boreGapMm / 2, boreGapMm / 2].map((wide) => ({ wide, halfLength: lengthMm / 2 }))
    const oval = bead.contact < 4
    const outline = oval ? ellipse(lengthMm / 2, wideMm / 2) : rectangle(lengthMm / 2, wideMm / 2, 0.08 * acrossMm)
    return { type: 'flat', outline, thick: acrossMm, sharp: !oval, holes }
  }
  if (kind === 'cube')
    return {
      type: 'flat',
      outline: rectangle(lengthMm / 2, acrossMm / 2, 0.06 * acrossMm),
      thick: acrossMm,
      sharp: true,
      holes: [{ wide: 0, halfLength: lengthMm / 2 }],
    }
  const turned = (
    shares: readonly (readonly [number, number])[],
    edges: readonly number[] = [],
    facets = 0,
  ): TurnedBody => ({
    type: 'turned',
    about: 'hole',
    profile: shares.map(([along, out]) => [(along * lengthMm) / 2, (out * acrossMm) / 2] as const),
    edges,
    facets,
  })
  const mouth = Math.min(0.7, bead.boreMm / acrossMm + 0.08)
  switch (kind) {
    case 'bicone':
      return turned(
        [
          [-1, mouth],
          [0, 1],
          [1, mouth],
        ],
        [1],
        8,
      )
    case 'faceted round':
      return turned(
        [
          [-1, 0.42],
          [-0.46, 0.94],
          [0.46, 0.94],
          [1, 0.42],
        ],
        [1, 2],
        8,
      )
    case 'cylinder':
      return turned(
        [
          [-1, 0.88],
          [-0.9, 1],
          [0.9, 1],
          [1, 0.88],
        ],
        [1, 2],
      )
    case 'bugle':
      return turned([
        [-1, 0.97],
        [1, 0.97],
      ])
    default: {
      const body = turned(superellipse(kind === 'pearl round' ? 2 : bead.contact))
      return bead.bores === 2 ? { ...body, crossed: true } : body
    }
  }
}

function outlined(bead: BodyMeasures, { turned, stations }: Outline): Body {
  const { boreGapMm, offMm, acrossMm, lengthMm } = bead
  const holes = boreGapMm === undefined ? [-(offMm ?? 0)] : [-boreGapMm / 2, boreGapMm / 2]
  if (turned)
    return {
      type: 'turned',
      about: 'across',
      profile: stations.map(([wide, from, to]) => [wide, (to - from) / 2] as const),
      edges: [],
      facets: 0,
      holeAt: holes[0] as Mm,
    }
  const outline = [
    ...stations.map(([wide, , to]) => [to, wide] as const),
    ...[...stations].reverse().map(([wide, from]) => [from, wide] as const),
  ]
  const parts = stations.slice(1).map(([wide, from, to], k) => {
    const [before, fromBefore, toBefore] = stations[k] as (typeof stations)[number]
    return [
      [fromBefore, before],
      [toBefore, before],
      [to, wide],
      [from, wide],
    ] as const
  })
  return {
    type: 'flat',
    outline,
    parts,
    thick: acrossMm,
    sharp: bead.contact >= 4,
    holes: holes.map((wide) => ({ wide, halfLength: lengthMm / 2 })),
  }
}

/** From one mouth of the hole to the other; the more square, the higher the exponent. */
const superellipse = (exponent: number): [number, number][] =>
  Array.from({ length: smooth + 1 }, (_, i) => {
    const angle = -Math.PI / 2 + (Math.PI * i) / smooth
    const power = (v: number) => Math.sign(v) * Math.abs(v) ** (2 / exponent)
    return [power(Math.sin(angle)), power(Math.max(0, Math.cos(angle)))]
  })

const ellipse = (a: Mm, b: Mm): [Mm, Mm][] =>
  Array.from({ length: 4 * smooth }, (_, i) => {
    const angle = (Math.PI * i) / (2 * smooth)
    return [a * Math.cos(angle), b * Math.sin(angle)]
  })

/** With its corners cut by so much. */
const rectangle = (a: Mm, b: Mm, cut: Mm): [Mm, Mm][] => [
  [a, -b + cut],
  [a, b - cut],
  [a - cut, b],
  [-a + cut, b],
  [-a, b - cut],
  [-a, -b + cut],
  [-a + cut, -b],
  [a - cut, -b],
]
