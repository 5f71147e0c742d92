import { usualThreadSettings } from '@tessellum/core/thread/settings'
import { toHtml } from '@tessellum/core/writing/html'
import type { LanguageCode } from '@tessellum/core/writing/language'
import { languages } from '@tessellum/core/writing/languages'
import { toMarkdown } from '@tessellum/core/writing/markdown'
import { plainEdition, writePattern } from '@tessellum/core/writing/write-pattern'
import type { WrittenPattern } from '@tessellum/core/writing/written-pattern'
import { readArguments } from './arguments'
import { orFaults, patternOptions, reportFile } from './pattern'
import { Misuse } from './trouble'

const forms: Readonly<Record<string, (written: WrittenPattern) => string>> = {
  md: toMarkdown,
  html: (written) => toHtml(written),
  json: (written) => `${JSON.stringify(written, null, 2)}\n`,
}

/** `write FILE --to md|html|json --language en|de|fr|nl`: the written pattern. */
export function write(args: string[]): string {
  const { values, positionals } = readArguments(args, {
    ...patternOptions,
    to: { type: 'string' },
    language: { type: 'string' },
  })
  const form = forms[values.to ?? 'md']
  if (!form) throw new Misuse(`--to is "${values.to}"; it can be md, html or json.`)
  const language = values.language ?? 'en'
  if (!Object.hasOwn(languages, language))
    throw new Misuse(`--language is "${language}"; it can be ${Object.keys(languages).join(', ')}.`)
  const found = reportFile(positionals[0], values)
  return orFaults(found, form(writePattern(found, plainEdition(usualThreadSettings, language as LanguageCode))))
}
