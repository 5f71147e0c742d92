/** The demo shop's colourways: item codes by role; a stone's by role and size. */

interface DemoColourway {
  readonly pattern: string
  readonly name: string
  readonly items: Readonly<Record<string, string | Readonly<Record<string, string>>>>
}

export const demoColourways: readonly DemoColourway[] = [
  {
    pattern: 'Windlass pendant',
    name: 'Lantern',
    items: { A: 'BC101', B: 'BC108', C: 'BF101', S: { petite: 'WS14-01', classic: 'WS18-01' }, thread: 'PB6-G' },
  },
  {
    // The other maker's cylinders are longer, so the ring of the small size has fewer of them.
    pattern: 'Windlass pendant',
    name: 'Ember and rust',
    items: { A: 'TC122', B: 'TC108', C: 'TF101', S: { petite: 'WS14-02', classic: 'WS18-02' }, thread: 'PB6-G' },
  },
  {
    pattern: 'Heron earrings',
    name: 'Winter heron',
    items: { A: 'BC129', B: 'BC108', C: 'BF115', S: { short: 'WO14-01', long: 'WO18-01' }, thread: 'PB6-W' },
  },
  {
    pattern: 'Heron earrings',
    name: 'Marsh light',
    items: { A: 'BC171', B: 'BC143', C: 'BF150', S: { short: 'WO14-02', long: 'WO18-02' }, thread: 'PB6-G' },
  },
  {
    pattern: 'Sluicegate pendant',
    name: 'Slate water',
    items: {
      A: 'BC115',
      B: 'BC136',
      C: 'BF143',
      D: 'BR115',
      S: { small: 'WQ13-01', large: 'WQ18-01' },
      thread: 'PNB-B',
    },
  },
  {
    pattern: 'Sluicegate pendant',
    name: 'Ochre lock',
    items: {
      A: 'BC143',
      B: 'BC171',
      C: 'TF136',
      D: 'TR108',
      S: { small: 'WQ13-02', large: 'WQ18-02' },
      thread: 'PNB-S',
    },
  },
]

export interface DemoBatch {
  readonly name: string
  readonly dueInDays: number
  readonly state: 'draft' | 'reserved' | 'cancelled'
  readonly lines: readonly { pattern: string; size: string; colourway: string; kits: number }[]
}

export const demoBatches: readonly DemoBatch[] = [
  {
    name: 'Saturday class: first bezel',
    dueInDays: 11,
    state: 'reserved',
    lines: [
      { pattern: 'Windlass pendant', size: 'petite', colourway: 'Lantern', kits: 6 },
      { pattern: 'Windlass pendant', size: 'petite', colourway: 'Ember and rust', kits: 4 },
    ],
  },
  {
    name: 'Winter fair shelf',
    dueInDays: 19,
    state: 'reserved',
    lines: [{ pattern: 'Heron earrings', size: 'long', colourway: 'Winter heron', kits: 12 }],
  },
  {
    name: 'Lock keepers’ evening',
    dueInDays: 26,
    state: 'draft',
    lines: [{ pattern: 'Sluicegate pendant', size: 'small', colourway: 'Ochre lock', kits: 24 }],
  },
  {
    name: 'Market table',
    dueInDays: 33,
    state: 'draft',
    lines: [
      { pattern: 'Windlass pendant', size: 'classic', colourway: 'Lantern', kits: 8 },
      { pattern: 'Sluicegate pendant', size: 'large', colourway: 'Slate water', kits: 5 },
    ],
  },
  {
    name: 'Harvest class (called off)',
    dueInDays: -20,
    state: 'cancelled',
    lines: [{ pattern: 'Heron earrings', size: 'long', colourway: 'Marsh light', kits: 8 }],
  },
]
