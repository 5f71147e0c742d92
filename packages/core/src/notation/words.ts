/** The words that begin a line. The tokenizer, the editor's completion and the readers share these lists. */
export const declarationWords = [
  'pattern',
  'makes',
  'size',
  'option',
  'bead',
  'stone',
  'item',
  'thread',
  'part',
] as const

/** Words that hold the lines up to their `end` together. */
export const blockWords = ['repeat', 'for', 'until', 'at'] as const

export const stitchWords = [
  'let',
  'ring',
  'string',
  'pick',
  'round',
  'row',
  'square',
  'other',
  'to',
  'through',
  'again',
  'turn',
  'under',
  'place',
  'loop',
  'go',
  'weave',
  'join',
  'stand',
  'fringe',
  'reinforce',
  'rail',
  'attach',
  'hangs',
  'check',
  'note',
  'caution',
  'new',
  'finish',
] as const

/** Words that steer which lines are done. */
export const steeringWords = ['end', 'skip', 'use'] as const

export type DeclarationWord = (typeof declarationWords)[number]
export type BlockWord = (typeof blockWords)[number]
export type StitchWord = (typeof stitchWords)[number]

const all: ReadonlySet<string> = new Set([...declarationWords, ...blockWords, ...stitchWords, ...steeringWords])

export const isStatementWord = (word: string): boolean => all.has(word)
export const isBlockWord = (word: string): word is BlockWord => (blockWords as readonly string[]).includes(word)
export const isDeclarationWord = (word: string): word is DeclarationWord =>
  (declarationWords as readonly string[]).includes(word)
export const statementWords: readonly string[] = [...all]
