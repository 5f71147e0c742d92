/** The demo shop's shelf: wholly made up makers, colours and codes. */

export const makers = ['Brackwater Glass', 'Tollhouse Beads', 'Weir & Daughters', 'Towpath Thread'] as const
export type Maker = (typeof makers)[number]

interface Figures {
  readonly lengthMm: number
  readonly acrossMm: number
  readonly boreMm: number
  readonly massMg: number
  readonly contact: number
  /** 1 when absent. */
  readonly bores?: 1 | 2
}

export interface ShelfItem {
  readonly code: string
  readonly category: 'bead' | 'stone' | 'thread'
  readonly maker: Maker
  readonly kind: string
  readonly size: string
  readonly colourCode: string
  readonly colourName: string
  readonly finish: string
  readonly colour: string
  readonly unit: 'mg' | 'piece' | 'mm'
  readonly place: string
  readonly reorderBelow: number
  readonly figures?: Figures
  /** Received, oldest lot first, in the item's unit. */
  readonly lots: readonly number[]
  /** What it is bought in; prices in pence. */
  readonly packs: readonly Pack[]
}

const gram = 1000

type Pack = { readonly amount: number; readonly price: number; readonly leadDays: number }

/** A tube and, with a better price by weight, a bag. */
const beadPacks = (tube: number, price: number, leadDays: number): Pack[] => [
  { amount: tube, price, leadDays },
  { amount: 50 * gram, price: Math.round((price * 50 * gram * 0.8) / tube), leadDays: leadDays + 7 },
]

/** What a finish costs more than plain glass, times. */
const dearness: Readonly<Record<string, number>> = { metallic: 1.4, 'silver lined': 1.2, 'transparent lustre': 1.15 }

type Colour = readonly [name: string, colour: string, finish: string]

/** Colours of which there is less, or more, than of the others of their range. */
const ownLots: Readonly<Record<string, readonly number[]>> = {
  'TR-108': [1200],
  'BC-164': [900],
  'TF-101': [24 * gram],
}

/** Two makers' beads of one nominal size: the second's are a little longer and wider, and never quite say so. */
const ranges: readonly {
  readonly maker: Maker
  readonly prefix: string
  readonly kind: string
  readonly size: string
  readonly figures: Figures
  readonly shelf: string
  readonly lots: readonly number[]
  /** Of a plain tube of 8 g, in pence. */
  readonly price: number
  readonly colours: readonly Colour[]
}[] = [
  {
    maker: 'Brackwater Glass',
    prefix: 'BC',
    kind: 'cylinder',
    size: '11/0',
    figures: { lengthMm: 1.3, acrossMm: 1.6, boreMm: 0.8, massMg: 5.2, contact: 4 },
    shelf: 'A',
    lots: [24 * gram, 40 * gram],
    price: 360,
    colours: [
      ['Lantern green', '#2e5e4e', 'opaque matte'],
      ['Tarnished brass', '#a37b32', 'metallic'],
      ['Millpond', '#4d7f8c', 'transparent lustre'],
      ['Barge red', '#9d3b2c', 'opaque'],
      ['Moonlit slate', '#47525d', 'opaque matte'],
      ['Chalk bank', '#e9e4d6', 'opaque'],
      ['Reed gold', '#c29c4a', 'silver lined'],
      ['Night lock', '#20262e', 'opaque'],
      ['Damson', '#5b3350', 'opaque lustre'],
      ['Duckweed', '#87a04a', 'opaque matte'],
      ['Copper rivet', '#a65a3a', 'metallic'],
      ['First frost', '#c9d6da', 'transparent matte'],
      ['Kingfisher', '#1f7d97', 'silver lined'],
      ['Rosehip', '#c0524a', 'opaque lustre'],
    ],
  },
  {
    maker: 'Tollhouse Beads',
    prefix: 'TC',
    kind: 'cylinder',
    size: '11/0',
    figures: { lengthMm: 1.4, acrossMm: 1.7, boreMm: 0.85, massMg: 5.9, contact: 4 },
    shelf: 'B',
    lots: [20 * gram, 20 * gram],
    price: 320,
    colours: [
      ['Bottle green', '#285445', 'opaque'],
      ['Old gold', '#a8853d', 'metallic'],
      ['Canal blue', '#3f6f86', 'opaque lustre'],
      ['Rust gate', '#97472e', 'opaque matte'],
      ['Pewter', '#6b7176', 'metallic'],
      ['Buttermilk', '#eee3c6', 'opaque'],
      ['Soot', '#2a2b2e', 'opaque matte'],
      ['Heather', '#8a6c93', 'transparent'],
      ['Moss stone', '#6e7b46', 'opaque'],
      ['Brick dust', '#b5694f', 'opaque matte'],
    ],
  },
  {
    maker: 'Brackwater Glass',
    prefix: 'BF',
    kind: 'round',
    size: '15/0',
    figures: { lengthMm: 1, acrossMm: 1.5, boreMm: 0.6, massMg: 3.6, contact: 2.5 },
    shelf: 'C',
    lots: [10 * gram, 15 * gram],
    price: 380,
    colours: [
      ['Tarnished brass', '#a37b32', 'metallic'],
      ['Lantern green', '#2e5e4e', 'opaque matte'],
      ['Chalk bank', '#e9e4d6', 'opaque'],
      ['Millpond', '#4d7f8c', 'transparent lustre'],
      ['Night lock', '#20262e', 'opaque'],
      ['Copper rivet', '#a65a3a', 'metallic'],
      ['First frost', '#c9d6da', 'transparent matte'],
      ['Reed gold', '#c29c4a', 'silver lined'],
    ],
  },
  {
    maker: 'Tollhouse Beads',
    prefix: 'TF',
    kind: 'round',
    size: '15/0',
    figures: { lengthMm: 1.05, acrossMm: 1.55, boreMm: 0.6, massMg: 3.9, contact: 2.5 },
    shelf: 'D',
    lots: [8 * gram],
    price: 330,
    colours: [
      ['Old gold', '#a8853d', 'metallic'],
      ['Pewter', '#6b7176', 'metallic'],
      ['Buttermilk', '#eee3c6', 'opaque'],
      ['Soot', '#2a2b2e', 'opaque matte'],
      ['Canal blue', '#3f6f86', 'opaque lustre'],
      ['Rust gate', '#97472e', 'opaque matte'],
    ],
  },
  {
    maker: 'Brackwater Glass',
    prefix: 'BR',
    kind: 'round',
    size: '11/0',
    figures: { lengthMm: 1.5, acrossMm: 2.1, boreMm: 0.8, massMg: 9.1, contact: 2.5 },
    shelf: 'E',
    lots: [16 * gram, 24 * gram],
    price: 290,
    colours: [
      ['Copper rivet', '#a65a3a', 'metallic'],
      ['Chalk bank', '#e9e4d6', 'opaque'],
      ['Moonlit slate', '#47525d', 'opaque matte'],
      ['Reed gold', '#c29c4a', 'silver lined'],
      ['Kingfisher', '#1f7d97', 'silver lined'],
    ],
  },
  {
    maker: 'Tollhouse Beads',
    prefix: 'TR',
    kind: 'round',
    size: '11/0',
    figures: { lengthMm: 1.6, acrossMm: 2.2, boreMm: 0.85, massMg: 9.8, contact: 2.5 },
    shelf: 'F',
    lots: [12 * gram],
    price: 270,
    colours: [
      ['Pewter', '#6b7176', 'metallic'],
      ['Rust gate', '#97472e', 'opaque matte'],
      ['Buttermilk', '#eee3c6', 'opaque'],
    ],
  },
]

const beads: ShelfItem[] = ranges.flatMap(({ maker, prefix, kind, size, figures, shelf, lots, price, colours }) =>
  colours.map(([colourName, colour, finish], i) => {
    const colourCode = `${prefix}-${String(101 + i * 7)}`
    return {
      code: `${prefix}${101 + i * 7}`,
      category: 'bead' as const,
      maker,
      kind,
      size,
      colourCode,
      colourName,
      finish,
      colour,
      unit: 'mg' as const,
      place: `${shelf}${Math.floor(i / 4) + 1}`,
      reorderBelow: 8 * gram,
      figures,
      lots: ownLots[colourCode] ?? lots,
      packs: beadPacks(8 * gram, Math.round(price * (dearness[finish] ?? 1)), maker === 'Tollhouse Beads' ? 10 : 4),
    }
  }),
)

const stone = (
  code: string,
  kind: string,
  size: string,
  colourName: string,
  colour: string,
  lots: number[],
): ShelfItem => ({
  code,
  category: 'stone',
  maker: 'Weir & Daughters',
  kind,
  size,
  colourCode: code,
  colourName,
  finish: 'cut glass',
  colour,
  unit: 'piece',
  place: 'drawer 3',
  reorderBelow: 6,
  lots,
  packs: [
    { amount: 1, price: 180 + 3 * Number.parseInt(size, 10), leadDays: 14 },
    { amount: 12, price: 12 * 150 + 30 * Number.parseInt(size, 10), leadDays: 14 },
  ],
})

const stones: ShelfItem[] = [
  stone('WS14-01', 'round stone', '14 mm', 'Deep weir', '#2b6a78', [30, 12]),
  stone('WS18-01', 'round stone', '18 mm', 'Deep weir', '#2b6a78', [24, 36]),
  stone('WS18-02', 'round stone', '18 mm', 'Ember', '#b0482f', [20]),
  stone('WS14-02', 'round stone', '14 mm', 'Ember', '#b0482f', [20]),
  stone('WO14-01', 'oval stone', '10 x 14 mm', 'Heron grey', '#7f8b93', [24]),
  stone('WO18-01', 'oval stone', '13 x 18 mm', 'Heron grey', '#7f8b93', [40]),
  stone('WO18-02', 'oval stone', '13 x 18 mm', 'Marsh amber', '#c08a35', [18]),
  stone('WQ13-01', 'square stone', '13 mm', 'Sluice blue', '#4c6f95', [36]),
  stone('WQ13-02', 'square stone', '13 mm', 'Ochre', '#b98b3e', [30]),
  stone('WQ18-01', 'square stone', '18 mm', 'Sluice blue', '#4c6f95', [16]),
  stone('WO14-02', 'oval stone', '10 x 14 mm', 'Marsh amber', '#c08a35', [18]),
  stone('WQ18-02', 'square stone', '18 mm', 'Ochre', '#b98b3e', [14]),
  stone('WR10-01', 'round stone', '10 mm', 'Moonwater', '#dfe3e0', [40]),
  stone('WR10-02', 'round stone', '10 mm', 'Rosehip', '#a8484a', [24]),
]

const thread = (
  code: string,
  kind: string,
  size: string,
  colourName: string,
  colour: string,
  metres: number,
): ShelfItem => ({
  code,
  category: 'thread',
  maker: 'Towpath Thread',
  kind,
  size,
  colourCode: code,
  colourName,
  finish: '',
  colour,
  unit: 'mm',
  place: 'spools',
  reorderBelow: 50_000,
  lots: [metres * 1000],
  packs: [{ amount: metres * 1000, price: 4 * metres + 250, leadDays: 3 }],
})

const threads: ShelfItem[] = [
  thread('PB6-G', 'braid', '6 lb', 'smoke', '#6f7470', 275),
  thread('PB6-W', 'braid', '6 lb', 'crystal', '#e8e8e2', 275),
  thread('PNB-B', 'nylon', 'B', 'bark', '#5a4636', 140),
  thread('PNB-S', 'nylon', 'B', 'sand', '#cdb994', 140),
]

export const shelf: readonly ShelfItem[] = [...beads, ...stones, ...threads]

export const demoSuppliers: readonly {
  readonly name: Maker
  readonly contact: string
  readonly leadDays: number
  readonly minOrder: number
}[] = [
  { name: 'Brackwater Glass', contact: 'orders@brackwater.example', leadDays: 7, minOrder: 4000 },
  { name: 'Tollhouse Beads', contact: '0555 018 400', leadDays: 14, minOrder: 6000 },
  { name: 'Weir & Daughters', contact: 'post@weir.example', leadDays: 21, minOrder: 0 },
  { name: 'Towpath Thread', contact: '0555 018 912', leadDays: 5, minOrder: 2000 },
]
