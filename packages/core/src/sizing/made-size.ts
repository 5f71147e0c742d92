/**
 * A size as it is named in a batch or an order: one of the pattern's own, or made to measure, written as the notation writes sizes: "classic",
 * "classic, length = 178 mm", "length = 178 mm".
 */
import { type Mm, trim } from '../measure/units'

export interface MadeSize {
  /** "" for the pattern's usual size. */
  readonly name: string
  readonly measures: Readonly<Record<string, Mm>>
}

const setting = /^([a-z][\w-]*)\s*=\s*(\d+(?:\.\d+)?)\s*mm$/i

export function readMadeSize(text: string): MadeSize {
  const measures: Record<string, Mm> = {}
  const names: string[] = []
  for (const part of text.split(',').map((each) => each.trim())) {
    const [, name, value] = setting.exec(part) ?? []
    if (name !== undefined) measures[name] = Number(value)
    else if (part !== '') names.push(part)
  }
  return { name: names.join(', '), measures }
}

export const writeMadeSize = ({ name, measures }: MadeSize): string =>
  [name, ...Object.entries(measures).map(([of, mm]) => `${of} = ${trim(mm, 1)} mm`)].filter(Boolean).join(', ')
