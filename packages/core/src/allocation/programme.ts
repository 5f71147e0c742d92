/** Writes an integer programme in the LP format. */

export interface Term {
  readonly times: number
  readonly name: string
}

export interface Row {
  readonly terms: readonly Term[]
  readonly sign: '<=' | '>=' | '='
  readonly of: number
}

export interface Programme {
  readonly goal: 'max' | 'min'
  readonly objective: readonly Term[]
  readonly rows: readonly Row[]
  /** Whole numbers from 0 to their bound. */
  readonly whole: ReadonlyMap<string, number>
  readonly binary: ReadonlySet<string>
  /** Any numbers from 0 to their bound. */
  readonly most?: ReadonlyMap<string, number>
}

/** A line of an LP file is at most 255 characters long. */
const longest = 200

function sum(terms: readonly Term[]): string {
  if (terms.length === 0) return '0 nothing'
  let text = ''
  let line = 0
  for (const { times, name } of terms) {
    const piece = `${times < 0 ? '-' : '+'} ${Math.abs(times)} ${name} `
    if (line + piece.length > longest) {
      text += '\n '
      line = 0
    }
    text += piece
    line += piece.length
  }
  return text.trimEnd()
}

export function written({ goal, objective, rows, whole, binary, most = new Map() }: Programme): string {
  const lines = [goal === 'max' ? 'Maximize' : 'Minimize', ` obj: ${sum(objective)}`, 'Subject To']
  rows.forEach(({ terms, sign, of }, i) => {
    if (terms.length > 0) lines.push(` r${i}: ${sum(terms)} ${sign} ${of}`)
  })
  lines.push('Bounds')
  for (const [name, bound] of [...whole, ...most]) lines.push(` 0 <= ${name} <= ${bound}`)
  lines.push(' 0 <= nothing <= 0')
  if (whole.size > 0) lines.push('General', ...[...whole.keys()].map((name) => ` ${name}`))
  if (binary.size > 0) lines.push('Binary', ...[...binary].map((name) => ` ${name}`))
  return `${[...lines, 'End'].join('\n')}\n`
}
