/**
 * Lines for people who do not type notation: each form asks for beads and numbers and gives lines that the ledger takes. A form's sketch is
 * a small pattern of its own, drawn like any other.
 */
import { ordinal } from './ordinal'

export type Field =
  | { readonly name: string; readonly label: string; readonly kind: 'bead' | 'stone' }
  | {
      readonly name: string
      readonly label: string
      readonly kind: 'count'
      readonly least: number
      readonly most: number
      readonly usual: number
    }
  | { readonly name: string; readonly label: string; readonly kind: 'length'; readonly usual: number }

export interface LineForm {
  readonly name: string
  readonly about: string
  readonly fields: readonly Field[]
  lines(values: Readonly<Record<string, string | number>>): string[]
  readonly sketch: string
}

const bead = (name: string, label: string): Field => ({ name, label, kind: 'bead' })
const count = (name: string, label: string, usual: number, least = 1, most = 400): Field => ({
  name,
  label,
  kind: 'count',
  least,
  most,
  usual,
})

const sketchOf = (...lines: string[]) =>
  ['bead A round 11/0', 'bead C round 15/0', 'stone S round 9 mm, height 3 mm', 'part p', ...lines].join('\n')

export const lineForms: readonly LineForm[] = [
  {
    name: 'Ring',
    about: 'Beads strung and closed into a ring.',
    fields: [bead('bead', 'Bead'), count('count', 'How many', 36, 3)],
    lines: ({ bead, count }) => [`ring ${count}${bead}`],
    sketch: sketchOf('ring 14A'),
  },
  {
    name: 'Round of peyote',
    about: 'One bead in each gap of the last round.',
    fields: [bead('bead', 'Bead')],
    lines: ({ bead }) => [`round ${bead}`],
    sketch: sketchOf('ring 14A', 'round C'),
  },
  {
    name: 'Round with decreases',
    about: 'Beads in some gaps, then one gap passed without a bead.',
    fields: [bead('bead', 'Bead'), count('between', 'Stitches between decreases', 4)],
    lines: ({ bead, between }) => [`round ${bead} x ${between}, -`],
    sketch: sketchOf('ring 16A', 'round A x3, -'),
  },
  {
    name: 'Round of arcs',
    about: 'A run of beads from one bead of the last round to another.',
    fields: [bead('bead', 'Bead'), count('run', 'Beads in an arc', 5), count('every', 'Into every ... bead', 4, 1, 40)],
    lines: ({ bead, run, every }) => [
      Number(every) === 1
        ? `round ${run}${bead} into every bead`
        : `round ${run}${bead} into every ${ordinal(Number(every))} bead`,
    ],
    sketch: sketchOf('ring 12A', 'round 5C into every 3rd bead'),
  },
  {
    name: 'Wrap a stone',
    about: 'A ring sized to the stone, a round on each edge to hold it.',
    fields: [
      { name: 'stone', label: 'Stone', kind: 'stone' },
      bead('wall', 'Bead of the wall'),
      bead('edge', 'Bead of the edges'),
    ],
    lines: ({ stone, wall, edge }) => [
      `let n = fit(${stone}, ${wall})`,
      `ring ${wall} x n`,
      `round ${wall}`,
      `round ${edge}`,
      'other edge',
      `round ${wall}`,
      `place ${stone}`,
      `round ${edge}`,
    ],
    sketch: sketchOf('ring 20A', 'round C', 'other edge', 'place S', 'round C'),
  },
  {
    name: 'Right-angle strip',
    about: 'Units of four beads in a row.',
    fields: [bead('bead', 'Bead'), count('units', 'Units', 12)],
    lines: ({ bead, units }) => [`weave ${units} units of 3${bead}`],
    sketch: sketchOf('weave 4 units of 3A'),
  },
  {
    name: 'Flat peyote',
    about: 'A row strung, and rows worked back and forth on it.',
    fields: [bead('bead', 'Bead'), count('wide', 'Beads in the first row', 12, 2), count('rows', 'Rows on it', 8)],
    lines: ({ bead, wide, rows }) => [
      `string ${Number(wide) + (Number(wide) % 2)}${bead}`,
      `repeat ${rows}`,
      `row ${bead}`,
      'end',
    ],
    sketch: sketchOf('string 8A', 'row A', 'row A', 'row A'),
  },
  {
    name: 'Loop or bail',
    about: 'Beads picked up and closed through the bead they began at.',
    fields: [bead('bead', 'Bead'), count('count', 'How many', 9)],
    lines: ({ bead, count }) => [`loop ${count}${bead} as bail`, 'reinforce'],
    sketch: sketchOf('ring 14A', 'to any A', 'loop 7C'),
  },
  {
    name: 'Fringe',
    about: 'A strand that hangs, with a bead or three at its end.',
    fields: [
      bead('bead', 'Bead of the strand'),
      count('long', 'Beads long', 8),
      bead('tip', 'Bead at the end'),
      count('tips', 'At the end', 3),
    ],
    lines: ({ bead, long, tip, tips }) => [`fringe ${long}${bead} end ${tips}${tip}`],
    sketch: sketchOf('string 4A', 'fringe 6C end 3A'),
  },
  {
    name: 'Standing beads',
    about: 'Beads on end round a core, holes pointing outward.',
    fields: [
      bead('bead', 'Bead'),
      { name: 'core', label: 'Core across, mm', kind: 'length', usual: 12 },
      count('rows', 'Rows', 1, 1, 12),
    ],
    lines: ({ bead, core, rows }) => [
      `stand ${bead} round ${core} mm`,
      ...Array.from({ length: Number(rows) - 1 }, () => `stand row ${bead}`),
    ],
    sketch: sketchOf('stand A round 8 mm'),
  },
  {
    name: 'Picots at every bead',
    about: 'A small loop at each bead of the edge in hand.',
    fields: [bead('edge', 'Edge bead'), bead('bead', 'Bead of the picot'), count('count', 'Beads in a picot', 3)],
    lines: ({ edge, bead, count }) => [`at each ${edge} in front`, `loop ${count}${bead}`, 'end'],
    sketch: sketchOf('ring 8A as base', 'at each A in base', 'loop 3C', 'end'),
  },
  {
    name: 'Reinforce',
    about: 'Once more through what was just made.',
    fields: [count('times', 'Times', 1, 1, 6)],
    lines: ({ times }) => [Number(times) === 1 ? 'reinforce' : `reinforce ${times}`],
    sketch: sketchOf('ring 14A', 'reinforce'),
  },
  {
    name: 'Finish',
    about: 'Ends the thread.',
    fields: [],
    lines: () => ['finish'],
    sketch: sketchOf('string 7A', 'finish'),
  },
]
