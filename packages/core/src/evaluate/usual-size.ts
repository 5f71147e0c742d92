import { parsePattern } from '../notation/parse'
import { Faults } from './faults'
import { readSheet } from './program'

/** The size a pattern is made in when none is asked for; "" for a pattern of one size. */
export function usualSize(source: string): string {
  const parsed = parsePattern(source)
  const { sizes } = readSheet(parsed.lines, new Faults(parsed))
  return (sizes.find((size) => size.usual) ?? sizes[0])?.name ?? ''
}
