/** What a pattern says of tools, dangers, marks and wearing, in English. */
import type { Endings } from '../language'

export const cautions = (endings: Endings, hasStone: boolean, hasFindings: boolean): string[] => [
  'Never force a needle: glass breaks. Wear eye protection when you pull hard or use pliers.',
  'Count the needles out and in. Keep beads, needles and other small parts away from young children.',
  ...(endings.has('melt')
    ? [
        'A thread burner or lighter burns: keep it from hair, fabric and children, air the room, and use none where the venue forbids flames.',
      ]
    : []),
  ...(endings.has('glue') ? ['Glue: air the room and follow the label.'] : []),
  ...(hasStone
    ? [
        'Old or unknown stones and beads may hold lead or cadmium: check your local product-safety rules before selling, or using with children.',
      ]
    : []),
  ...(hasFindings
    ? [
        'Findings of metal: some people do not bear nickel or other metals on the skin. Keep magnets from medical devices.',
      ]
    : []),
]

export const tools = (needle: number, endings: Endings): string[] => [
  `a size ${needle} needle`,
  'small sharp scissors',
  'a bead mat',
  'a ruler',
  ...(endings.has('melt') ? ['a thread burner'] : []),
  ...(endings.has('glue') ? ['jewellery glue'] : []),
]

export const marks = [
  '"Stands up": a bead of the last round that sits higher than its neighbours.',
  '"Step up": pass through the first bead or group of the round just done, so that the next round can begin.',
  'Beads of what has been given a name are numbered in the order in which they were picked up.',
  'A decrease is a stitch that picks up nothing: pass on and pull close.',
  'Letters are the beads of the materials list; a number before a letter is how many to pick up.',
]

export const wear = [
  'Put it on last and take it off first; keep it from water, scent and strong light.',
  'Lay it flat to keep it, and look at clasp, loops and edges now and then: mend a worn thread before it parts.',
]
