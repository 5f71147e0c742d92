/** What the editor offers while a pattern is typed, and how it colours it. */
import { CompletionContext, type CompletionResult } from '@codemirror/autocomplete'
import { EditorState } from '@codemirror/state'
import { highlightTree, tagHighlighter, tags } from '@lezer/highlight'
import { beadKinds } from '@tessellum/core/catalogue/nominal-beads'
import { statementWords } from '@tessellum/core/notation/words'
import { demo } from '../../core/test/support'
import { tessLanguage } from '../src/patterns/tess-language'

const language = tessLanguage()

/** @param text the place is at its "|" */
function offered(text: string, explicit = false): CompletionResult | null {
  const pos = text.indexOf('|')
  const state = EditorState.create({ doc: text.replace('|', ''), extensions: language })
  const [complete] = state.languageDataAt<(context: CompletionContext) => CompletionResult | null>('autocomplete', pos)
  return complete?.(new CompletionContext(state, pos, explicit)) ?? null
}
const labels = (text: string, explicit = false) => offered(text, explicit)?.options.map(({ label }) => label)

test('a line begins with any word of the notation, and each says what it is for', () => {
  const begun = offered('pattern T\npart p\n  ri|')
  expect(begun?.options.map(({ label }) => label)).toEqual([...statementWords])
  expect(begun?.options.filter(({ detail }) => !detail)).toEqual([])
  // What is chosen takes the place of what was typed.
  expect(begun?.from).toBe('pattern T\npart p\n  '.length)
  expect(labels('part p\n|')).toBeUndefined()
  expect(labels('part p\n|', true)).toEqual([...statementWords])
})

test('after the letter of a bead come the kinds of bead', () => {
  expect(labels('bead A |')).toEqual([...beadKinds])
  expect(offered('bead A twin ti|')?.from).toBe('bead A '.length)
  expect(labels('bead A round 11|')).not.toEqual([...beadKinds])
})

test('further on come the names that the text has, the beads first, each once', () => {
  const text = [
    'bead A cylinder 11/0 # delft',
    'stone S round 14 mm',
    'option tail "with a tail"',
    'part base',
    'ring 36A as start',
    'rail edge of start',
    'repeat 3',
    'for k in 1 to 4',
    'round A as start',
    'round |',
  ].join('\n')
  const options = offered(text, true)?.options ?? []
  const own = options.filter(({ type }) => type !== 'keyword').map(({ label, detail }) => [label, detail])
  expect(own).toEqual([
    ['A', 'bead, cylinder 11/0'],
    ['S', 'stone, round 14 mm'],
    ['start', 'mark'],
    ['base', 'part'],
    ['edge', 'name'],
    ['k', 'name'],
    ['tail', 'option'],
  ])
})

test('nothing is offered within what is said to people', () => {
  for (const text of ['note "mind the A|', 'round A # then B|', 'pattern "Ri|'])
    expect(labels(text, true)).toBeUndefined()
})

test('every demo pattern is coloured to its last letter, and nothing of it as a mistake', () => {
  const highlighter = tagHighlighter([
    { tag: tags.keyword, class: 'keyword' },
    { tag: tags.variableName, class: 'name' },
    { tag: tags.number, class: 'number' },
    { tag: tags.invalid, class: 'invalid' },
  ])
  const coloured = (text: string) => {
    const found: [string, string][] = []
    highlightTree(language.language.parser.parse(text), highlighter, (from, to, classes) =>
      found.push([classes, text.slice(from, to)]),
    )
    return found
  }
  for (const name of ['windlass-pendant', 'wherry-fan', 'towline-chain', 'sluice-rope']) {
    const found = coloured(demo(name))
    expect(found.filter(([is]) => is === 'invalid')).toEqual([])
    expect(found.filter(([is]) => is === 'keyword').length).toBeGreaterThan(5)
  }
  expect(coloured('ring 12A\nround ?')).toEqual([
    ['keyword', 'ring'],
    ['number', '12'],
    ['name', 'A'],
    ['keyword', 'round'],
    ['invalid', '?'],
  ])
})
