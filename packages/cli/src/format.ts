import { formatPattern } from '@tessellum/core/notation/format'
import { readArguments, readText } from './arguments'

/** `format FILE`: the pattern in its canonical layout. */
export function format(args: string[]): string {
  const { positionals } = readArguments(args, {})
  return formatPattern(readText(positionals[0]))
}
