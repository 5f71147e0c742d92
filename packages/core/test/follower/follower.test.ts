/**
 * The proof of the written pattern: it is read, word by word, by somebody who knows nothing of the notation, and stitched. What cannot be
 * followed from the text is missing in the text.
 */
import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import fc from 'fast-check'
import { evaluatePattern } from '../../src/evaluate/evaluate-pattern'
import { beadOf, boreOf, wayOf } from '../../src/stitch/hole'
import { usualThreadSettings } from '../../src/thread/settings'
import { plainEdition, writePattern } from '../../src/writing/write-pattern'
import type { WrittenPattern } from '../../src/writing/written-pattern'
import { allDemos, demo, errorsIn } from '../support'
import { dutch } from './dutch'
import { english } from './english'
import { follow } from './follow'
import { french } from './french'
import { german } from './german'
import { randomPattern } from './random-patterns'

/** A text is evaluated once for all languages. */
const evaluations = new Map<string, ReturnType<typeof evaluatePattern>>()
function evaluated(source: string) {
  const known = evaluations.get(source) ?? evaluatePattern(source)
  evaluations.set(source, known)
  return known
}

function stitched(source: string): string[] {
  const { work, letterOf } = evaluated(source)
  return Array.from({ length: work.passes }, (_, pass) => {
    const h = work.holeAt(pass)
    return `${work.isNew(pass) ? `+${letterOf(work.role(beadOf(h)))}` : ''}${beadOf(h)}${boreOf(h) === 1 ? ':2' : ''}${wayOf(h) === 1 ? '' : '<'}`
  })
}

const readers = { en: english, de: german, fr: french, nl: dutch } as const
const languages = Object.keys(readers) as (keyof typeof readers)[]

function write(source: string, language: keyof typeof readers): WrittenPattern {
  const { report } = evaluated(source)
  expect(errorsIn(report)).toEqual([])
  return writePattern(report, plainEdition(usualThreadSettings, language))
}

function followed(source: string, language: keyof typeof readers): readonly string[] {
  return follow(write(source, language), readers[language], stitched(source))
}

const folder = path.join(__dirname, '../pieces')
const pieces = readdirSync(folder).map(
  (file) => [file.replace('.tess', ''), readFileSync(path.join(folder, file), 'utf8')] as const,
)

/** The whole patterns of the notation's page. */
const page = readFileSync(path.join(__dirname, '../../../../docs/notation.md'), 'utf8')
const course = [...page.matchAll(/```tess\n(pattern (.+)\n[^`]*)```/g)]
  .map(([, text, name]) => [`${name}, of the page`, text as string] as const)
  .filter(([name]) => !name.startsWith('Example'))

describe.each(languages)('in %s', (language) => {
  test.each([...allDemos.map((name) => [name, demo(name)] as const), ...pieces, ...course])('%s', (_, source) => {
    expect(followed(source, language)).toEqual(stitched(source))
  })

  test('one number that is wrong is noticed, whichever it is', () => {
    const source = demo('sluicegate-pendant')
    const passes = stitched(source)
    const right = write(source, language)
    for (const [p, { steps }] of right.parts.entries())
      for (const [i, step] of steps.entries()) {
        // How many rounds there are on an edge, what stands up at its end and how a thread is ended tell no pass.
        const told = step.text.replace(
          /^\p{L}+ \p{L}+ \d+: |\d+ (?:beads or groups|Perlen oder Gruppen|perles ou groupes|kralen of groepen)|\d+ (?:hal\S+ \S+|demi-clés)/gu,
          (all) => all.replace(/\d/g, '_'),
        )
        for (const { index, 0: digits } of step.kind === 'stitch' ? told.matchAll(/\d+/g) : []) {
          const text = `${step.text.slice(0, index)}${Number(digits) + 1}${step.text.slice(index + digits.length)}`
          const tell = (part: WrittenPattern['parts'][number]) => ({
            ...part,
            steps: part.steps.map((each, at) => (at === i ? { ...each, text } : each)),
          })
          const wrong = { ...right, parts: right.parts.map((part, at) => (at === p ? tell(part) : part)) }
          let done: readonly string[] | undefined
          try {
            done = follow(wrong, readers[language], passes)
          } catch {
            continue
          }
          expect({ text, noticed: done.join() !== passes.join() }).toEqual({ text, noticed: true })
        }
      }
  })
})

test('patterns nobody had in mind, in every language', () => {
  fc.assert(
    fc.property(randomPattern, (source) => {
      const passes = stitched(source)
      for (const language of languages)
        expect({ language, passes: followed(source, language) }).toEqual({ language, passes })
      evaluations.delete(source)
    }),
    // The same each time, so that what fails here fails everywhere.
    { numRuns: 500, seed: 20_261_126 },
  )
})
