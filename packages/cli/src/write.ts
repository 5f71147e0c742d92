import { usualThreadSettings } from '@tessellum/core/thread/settings'
import { toHtml } from '@tessellum/core/writing/html'
import { toMarkdown } from '@tessellum/core/writing/markdown'
import { writePattern } from '@tessellum/core/writing/write-pattern'
import type { WrittenPattern } from '@tessellum/core/writing/written-pattern'
import { readArguments } from './arguments'
import { choicesFrom, orFaults, patternOptions, reckonFile } from './pattern'
import { Misuse } from './trouble'

const forms: Readonly<Record<string, (written: WrittenPattern) => string>> = {
  md: toMarkdown,
  html: toHtml,
  json: (written) => `${JSON.stringify(written, null, 2)}\n`,
}

/** `write FILE --to md|html|json`: the written pattern. */
export function write(args: string[]): string {
  const { values, positionals } = readArguments(args, { ...patternOptions, to: { type: 'string' } })
  const form = forms[values.to ?? 'md']
  if (!form) throw new Misuse(`--to is "${values.to}"; it can be md, html or json.`)
  const found = reckonFile(positionals[0], choicesFrom(values))
  return orFaults(
    found,
    form(writePattern(found, { version: undefined, colourway: undefined, settings: usualThreadSettings, bill: [] })),
  )
}
