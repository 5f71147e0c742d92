import { exchanged } from '../exchange'

const pairs = [
  ['links', 'rechts'],
  ['linksom', 'rechtsom'],
  ['linker', 'rechter'],
  ['linkse', 'rechtse'],
  ['met de klok mee', 'tegen de klok in'],
  // Written in one word: a side of something.
  ...['kant', 'rand', 'hand', 'zijde', 'hoek', 'helft', 'einde'].map(
    (noun) => [`linker${noun}`, `rechter${noun}`] as const,
  ),
] as const

/** A right angle ("rechte hoek") is no side. */
const sides =
  /\b(?:links|rechts)(?:om)?\b|\b(?:linker|rechter)(?:kant|rand|hand|zijde|hoek|helft|einde)?\b|\b(?:linkse|rechtse)\b|\bmet de klok mee\b|\btegen de klok in\b/gi

export const otherHand = (text: string): string => exchanged(text, sides, pairs)
