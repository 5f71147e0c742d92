import { exchanged } from '../exchange'

const pairs = [
  ['left', 'right'],
  ['leftmost', 'rightmost'],
  ['leftward', 'rightward'],
  ['leftwards', 'rightwards'],
  ['counterclockwise', 'clockwise'],
  ['counter-clockwise', 'clockwise'],
  // The last is what "clockwise" becomes.
  ['anticlockwise', 'clockwise'],
] as const

const side =
  '(?:hand|side|edge|end|half|corner|row|column|bead|beads|hole|holes|face|arm|loop|ear|wing|earring|thread|tail|needle|strand)'
const before = '(?:the|your|its|to|from|on|at|upper|lower|top|bottom|far|near|outer|inner|towards?)'

/** "What is left", "right angle" and "right away" are no sides. */
const sides = new RegExp(
  [
    '\\b(?:left|right)most\\b',
    '\\b(?:left|right)wards?\\b',
    `\\b(?:left|right)(?=[- ]${side}\\b)`,
    `(?<=\\b${before} )(?:left|right)\\b(?! (?:over|out|behind|angle|angles|size|way|amount|number|time|moment|place|order)\\b|-angle)`,
    '\\b(?:counter-?|anti)?clockwise\\b',
  ].join('|'),
  'gi',
)

export const otherHand = (text: string): string => exchanged(text, sides, pairs)
