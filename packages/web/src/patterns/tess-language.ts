import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete'
import { HighlightStyle, LanguageSupport, LRLanguage, syntaxHighlighting } from '@codemirror/language'
import { styleTags, tags } from '@lezer/highlight'
import { beadKinds } from '@tessellum/core/catalogue/nominal-beads'
import { parser } from '@tessellum/core/notation/parser'
import { isDeclarationWord, statementWords } from '@tessellum/core/notation/words'

/** The core's own grammar, coloured for the editor. */
const tess = LRLanguage.define({
  name: 'tess',
  parser: parser.configure({
    props: [
      styleTags({
        'Keyword/Word': tags.keyword,
        Name: tags.variableName,
        'Number Size': tags.number,
        'String OpenString': tags.string,
        Comment: tags.comment,
        'Times Mark': tags.operator,
        'Unknown Stray/Unknown Close': tags.invalid,
      }),
    ],
  }),
  languageData: { commentTokens: { line: '#' }, autocomplete: complete },
})

const style = HighlightStyle.define([
  { tag: tags.keyword, color: '#2a5a49', fontWeight: '650' },
  { tag: tags.variableName, color: '#7a3b1e', fontWeight: '650' },
  { tag: tags.number, color: '#22302b' },
  { tag: tags.string, color: '#5b4a86' },
  { tag: tags.comment, color: '#66716a', fontStyle: 'italic' },
  { tag: tags.operator, color: '#56635c' },
  { tag: tags.invalid, color: '#9a3f2b' },
])

export const tessLanguage = () => new LanguageSupport(tess, [syntaxHighlighting(style)])

const explained: Readonly<Record<string, string>> = {
  pattern: 'its name',
  makes: 'how many pieces',
  size: 'name and measures',
  option: 'a part that may be left out',
  bead: 'letter, kind and size',
  stone: 'letter, shape and measures',
  item: 'a finding',
  thread: 'kind, strands, needle, tail',
  part: 'begins a part',
  repeat: 'so many times, to end',
  for: 'for k in 1 to 9, to end',
  until: 'a length is reached, to end',
  at: 'each place in turn, to end',
  end: 'ends a repeat',
  skip: 'if an option is off',
  use: 'another part here',
  let: 'name = number',
  ring: 'string beads and close',
  string: 'string beads, left open',
  pick: 'pick up beads',
  round: 'a round of stitches',
  square: 'a row on the beads below',
  row: 'back along an open row',
  other: 'edge: go to the other edge',
  to: 'travel to a bead',
  through: 'pass beads that are there',
  again: 'the same beads once more',
  turn: 'into the other hole; over: the other face',
  under: 'thread: catch the bridge',
  place: 'lay a stone in',
  loop: 'pick up and pass again',
  go: 'step on along the loop',
  weave: 'right-angle units',
  join: 'close a band, join pieces',
  stand: 'beads on end round a core',
  fringe: 'a strand that hangs',
  reinforce: 'go round once more',
  rail: 'gather beads into an edge',
  attach: 'a finding',
  hangs: 'how it is worn',
  check: '"a checkpoint"',
  note: '"words for the stitcher"',
  caution: 'a danger',
  new: 'thread: another begins',
  finish: 'end the thread',
}

/** Words at the beginning of a line; kinds of bead after `bead A`; letters, marks and parts that the text has, further on. */
function complete(context: CompletionContext): CompletionResult | null {
  const line = context.state.doc.lineAt(context.pos)
  const before = line.text.slice(0, context.pos - line.from)
  const opening = /^\s*([a-z]*)$/.exec(before)
  if (opening) {
    const typed = opening[1] ?? ''
    if (!typed && !context.explicit) return null
    return {
      from: context.pos - typed.length,
      options: statementWords.map((label) => ({
        label,
        detail: explained[label] ?? '',
        type: isDeclarationWord(label) ? 'type' : 'keyword',
      })),
    }
  }
  const kind = /^\s*bead\s+[A-Z]\w*\s+([a-z ]*)$/.exec(before)
  if (kind) {
    const typed = kind[1] ?? ''
    return { from: context.pos - typed.length, options: beadKinds.map((label) => ({ label, type: 'class' })) }
  }
  const word = /[A-Za-z][\w]*$/.exec(before)?.[0] ?? ''
  if (/["#]/.test(before) || (!word && !context.explicit)) return null
  return { from: context.pos - word.length, options: namesIn(context.state.doc.toString()), validFor: /^\w*$/ }
}

/** What a text has named: beads, stones and findings by their letters, marks, parts, values and options. */
function namesIn(text: string): Completion[] {
  const names: Completion[] = []
  for (const [, word, letter, rest] of text.matchAll(/^\s*(bead|stone|item)\s+([A-Z]\w*)\s+([^"#\n]*)/gm))
    names.push({ label: letter as string, detail: `${word}, ${(rest as string).trim()}`, type: 'variable', boost: 2 })
  const kinds = [
    [/\bas\s+([a-z]\w*)/g, 'mark'],
    [/^\s*part\s+([a-z]\w*)/gm, 'part'],
    [/^\s*(?:let|rail|for)\s+([a-z]\w*)/gm, 'name'],
    [/^\s*option\s+([a-z]\w*)/gm, 'option'],
  ] as const
  for (const [pattern, detail] of kinds) {
    for (const [, label] of text.matchAll(pattern))
      if (label && !names.some((each) => each.label === label))
        names.push({ label, detail, type: 'constant', boost: 1 })
  }
  for (const label of [
    'new',
    'front',
    'back',
    'middles',
    'every',
    'into',
    'first',
    'last',
    'middle',
    'any',
    'each',
    'over',
  ])
    names.push({ label, type: 'keyword' })
  return names
}
