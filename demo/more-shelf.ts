/** The rest of the demo shop's shelf: beads that few patterns ask for, in the colours of a canal. Wholly made up. */
import type { ShelfItem } from './shelf'

const gram = 1000
const things = [
  'Alder',
  'Bargee',
  'Bollard',
  'Cobble',
  'Coot',
  'Fen',
  'Ferry',
  'Hawser',
  'Lamplight',
  'Lapwing',
  'Marsh',
  'Otter',
  'Perch',
  'Punt',
  'Quay',
  'Rudd',
  'Rudder',
  'Sedge',
  'Slipway',
  'Tarpaulin',
  'Teal',
  'Tench',
  'Tiller',
  'Willow',
]
const shades = [
  ['green', '#3f6b4f'],
  ['blue', '#35617f'],
  ['gold', '#b08a3c'],
  ['red', '#94392f'],
  ['grey', '#6f777b'],
  ['cream', '#e6dcc2'],
  ['plum', '#5c3a58'],
  ['rust', '#9a5231'],
] as const
const finishes = ['opaque', 'opaque matte', 'transparent', 'metallic', 'opaque lustre', 'silver lined']

/** A shade a little lighter or darker, so that no two things look the same. */
function tinted(hex: string, by: number): string {
  const part = (at: number) => {
    const value = Number.parseInt(hex.slice(at, at + 2), 16)
    return Math.max(0, Math.min(255, value + by))
      .toString(16)
      .padStart(2, '0')
  }
  return `#${part(1)}${part(3)}${part(5)}`
}

const names = things.flatMap((thing, i) =>
  shades.map(([shade, hex], j) => ({ name: `${thing} ${shade}`, colour: tinted(hex, ((i * 7 + j * 3) % 9) * 5 - 20) })),
)

const kinds = [
  { prefix: 'BH', kind: 'round', size: '8/0', count: 20, figures: [2.1, 3.1, 1, 26, 2.5, 1], lots: [30, 20] },
  { prefix: 'TH', kind: 'round', size: '8/0', count: 20, figures: [2.2, 3.2, 1.05, 28, 2.5, 1], lots: [24] },
  { prefix: 'BS', kind: 'round', size: '6/0', count: 16, figures: [3, 4, 1.4, 70, 2.5, 1], lots: [40] },
  { prefix: 'BQ', kind: 'cube', size: '3 mm', count: 20, figures: [3, 3, 1, 58, 4, 1], lots: [36, 18] },
  { prefix: 'BB', kind: 'bicone', size: '3 mm', count: 24, figures: [3, 3, 0.8, 27, 1.2, 1], lots: [200, 144] },
  { prefix: 'BG', kind: 'bugle', size: '3 mm', count: 10, figures: [3, 1.9, 0.7, 15, 4, 1], lots: [20] },
  { prefix: 'BL', kind: 'bugle', size: '6 mm', count: 16, figures: [6, 1.9, 0.7, 33, 4, 1], lots: [24] },
  { prefix: 'TF3', kind: 'faceted round', size: '3 mm', count: 16, figures: [3, 3, 0.8, 30, 1.5, 1], lots: [160, 80] },
  { prefix: 'TP', kind: 'pearl round', size: '6 mm', count: 16, figures: [6, 6, 0.9, 270, 1.5, 1], lots: [90] },
  { prefix: 'TD', kind: 'drop', size: '3.4 mm', count: 16, figures: [3.4, 3.4, 0.9, 45, 1.5, 1], lots: [30] },
  {
    prefix: 'BT',
    kind: 'twin tile',
    size: '5 x 5 x 1.9 mm',
    count: 10,
    figures: [5, 5, 0.8, 110, 4, 2],
    lots: [60, 40],
  },
  { prefix: 'TL', kind: 'two-hole lens', size: '6 mm', count: 8, figures: [6, 6, 0.8, 150, 1.5, 2], lots: [50] },
  { prefix: 'TF4', kind: 'faceted round', size: '4 mm', count: 6, figures: [4, 4, 0.9, 80, 1.5, 1], lots: [180] },
  { prefix: 'TO', kind: 'twin oval', size: '2.5 x 5 mm', count: 6, figures: [2.5, 2.5, 0.8, 75, 2, 2], lots: [240] },
] as const

/** Kept by weight up to 8/0, bugles too; larger ones by the piece. */
const weighed = new Set(['8/0', '6/0', '3.4 mm'])
const byWeight = (kind: string, size: string) => weighed.has(size) || kind === 'bugle' || kind === 'cube'

let next = 0
export const moreShelf: readonly ShelfItem[] = kinds.flatMap(({ prefix, kind, size, count, figures, lots }, k) =>
  Array.from({ length: count }, (_, i): ShelfItem => {
    const { name, colour } = names[next++ % names.length] as (typeof names)[number]
    const number = 101 + i * 7
    const mg = byWeight(kind, size)
    const [lengthMm, acrossMm, boreMm, massMg, contact, bores] = figures
    return {
      code: `${prefix}${number}`,
      category: 'bead',
      maker: prefix.startsWith('B') ? 'Brackwater Glass' : 'Tollhouse Beads',
      kind,
      size,
      colourCode: `${prefix}-${number}`,
      colourName: name,
      finish: finishes[(i + k) % finishes.length] as string,
      colour,
      unit: mg ? 'mg' : 'piece',
      place: `${'GHJKLMNPQRSTUV'[k]}${1 + Math.floor(i / 6)}`,
      reorderBelow: mg ? 8 * gram : 24,
      figures: { lengthMm, acrossMm, boreMm, massMg, contact, bores },
      lots: lots.map((each) => (mg ? each * gram : each)),
      packs: mg
        ? [
            { amount: 8 * gram, price: 290 + k * 14, leadDays: 6 },
            { amount: 50 * gram, price: 1450 + k * 70, leadDays: 6 },
          ]
        : [{ amount: 24, price: 240 + k * 22, leadDays: 9 }],
    }
  }),
)
