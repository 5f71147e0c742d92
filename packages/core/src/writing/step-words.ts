/**
 * A designer's own words for a step. They hang on what the step's line says in notation, not on its number, so that they stay with it when lines
 * are added or taken away before it.
 */
import type { LanguageCode } from './language'

export interface StepWords {
  readonly language: LanguageCode
  /** The part, the line's notation, and which of several equal lines of the part it is, from 1. */
  readonly part: string
  readonly text: string
  readonly nth: number
  /** In place of the sentence; empty to leave it. */
  readonly instead: string
  /** After it; empty for nothing. */
  readonly also: string
}

export type StepKey = Pick<StepWords, 'part' | 'text' | 'nth'>

/** More of a line says nothing more of which it is. */
const longestKey = 400

/** The same notation, however it is spaced and whatever is remarked behind it. */
export const plainText = (text: string): string =>
  text.replace(/#.*$/, '').replace(/\s+/g, ' ').trim().slice(0, longestKey)

/** The keys of lines in their order. */
export function keysOf(lines: readonly { readonly part: string; readonly text: string }[]): StepKey[] {
  const seen = new Map<string, number>()
  return lines.map(({ part, text }) => {
    const plain = plainText(text)
    const nth = (seen.get(`${part}\n${plain}`) ?? 0) + 1
    seen.set(`${part}\n${plain}`, nth)
    return { part, text: plain, nth }
  })
}

export const sameStep = (a: StepKey, b: StepKey): boolean => a.part === b.part && a.text === b.text && a.nth === b.nth

/** Words whose step is gone: kept, and shown aside until they are given to another step or thrown away. */
export const wordsAside = (words: readonly StepWords[], keys: readonly StepKey[]): StepWords[] =>
  words.filter((each) => !keys.some((key) => sameStep(key, each)))
