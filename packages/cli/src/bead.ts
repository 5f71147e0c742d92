import type { Bead } from '@tessellum/core/catalogue/bead'
import { Cursor } from '@tessellum/core/notation/cursor'
import type { Scope } from '@tessellum/core/notation/expression'
import { LineFault } from '@tessellum/core/notation/fault'
import { parsePattern } from '@tessellum/core/notation/parse'
import { beadOf, readBead } from '@tessellum/core/notation/parse-bead'
import { Misuse } from './trouble'

const figures: Readonly<Record<string, keyof Pick<Bead, 'lengthMm' | 'acrossMm' | 'boreMm' | 'massMg' | 'contact'>>> = {
  L: 'lengthMm',
  d: 'acrossMm',
  hole: 'boreMm',
  mg: 'massMg',
  p: 'contact',
}

/** "cylinder 11/0 L=1.35 d=1.65": a nominal bead, and the figures in which this one differs. */
export function beadFrom(text: string): Bead {
  const changed: Partial<Record<(typeof figures)[string], number>> = {}
  const words = text.replace(/\b(L|d|hole|mg|p)\s*=\s*([\d.]+)\s*(?:mm)?/g, (_, key: string, value: string) => {
    const amount = Number(value)
    if (!(amount > 0)) throw new Misuse(`${key}=${value} must be above 0.`)
    changed[figures[key] as 'lengthMm'] = amount
    return ''
  })
  return { ...read(words, (cursor) => beadOf(readBead(cursor), noNames)), ...changed }
}

/** Nothing is named outside a pattern. */
export const noNames: Scope = {
  value: () => undefined,
  names: () => [],
  sizingBead: () => undefined,
  inArc: (work) => work(),
  roleOf: (letter) => letter,
  runOf: (_, written) => written,
  stone: () => undefined,
  settledFit: () => undefined,
  call: () => {
    throw new Misuse('Nothing can be computed here; give a number.')
  },
}

/** Reads a piece of notation that stands by itself. */
export function read<T>(text: string, reader: (cursor: Cursor) => T): T {
  // A word before it, so that it is read as the items of a line.
  const [line] = parsePattern(`bead ${text}`).lines
  const cursor = new Cursor(line?.items ?? [], { from: 0, to: text.length })
  try {
    const value = reader(cursor)
    cursor.finish()
    return value
  } catch (error) {
    if (error instanceof LineFault) throw new Misuse(`"${text}": ${error.message} ${error.mend ?? ''}`.trim())
    throw error
  }
}
