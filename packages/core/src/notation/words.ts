/** The words that begin a line. The tokenizer, the editor's completion and the readers share this list. */
export const declarationWords = ['pattern', 'makes', 'size', 'bead', 'stone', 'thread', 'part'] as const

export const stitchWords = [
  'let',
  'ring',
  'round',
  'other',
  'to',
  'place',
  'loop',
  'reinforce',
  'check',
  'note',
  'finish',
] as const

export type DeclarationWord = (typeof declarationWords)[number]
export type StitchWord = (typeof stitchWords)[number]

const all: ReadonlySet<string> = new Set([...declarationWords, ...stitchWords])

export const isStatementWord = (word: string): boolean => all.has(word)
export const statementWords: readonly string[] = [...all]
