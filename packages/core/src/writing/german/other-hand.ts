import { exchanged } from '../exchange'

const endings = ['e', 'er', 'en', 'em', 'es'] as const
const pairs = [
  ['links', 'rechts'],
  ['linksherum', 'rechtsherum'],
  ...endings.map((ending) => [`link${ending}`, `recht${ending}`] as const),
  ['im uhrzeigersinn', 'gegen den uhrzeigersinn'],
] as const

/** "Im rechten Winkel" is no side, and "recht fest" is none either. */
const sides =
  /\b(?:links|rechts)(?:herum)?\b|\b(?:link|recht)(?:e|er|en|em|es)\b(?! Winkel)|\b(?:im|gegen den) Uhrzeigersinn\b/gi

const nouns = /\buhrzeigersinn\b/g

export const otherHand = (text: string): string => exchanged(text, sides, pairs).replace(nouns, 'Uhrzeigersinn')
