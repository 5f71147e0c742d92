import { sayLength, trim } from '../../measure/units'
import { readString } from '../../notation/cursor'
import { LineFault, type Span } from '../../notation/fault'
import type { StitchMachine } from '../stitch-machine'
import type { Technique } from '../technique'

interface Spoken {
  readonly text: string
  readonly at: Span
}

const spoken = (word: 'check' | 'note', example: string): Technique<Spoken> => ({
  word,
  read(cursor) {
    const at = cursor.peek()
    const text = readString(cursor, `what to ${word === 'check' ? 'check' : 'say'}, in quotes`)
    if (!text) throw new LineFault(at ?? cursor.end, `This ${word} says nothing.`, `For example: ${example}`)
    return { text, at: at ?? cursor.end }
  },
  work: ({ text, at }, machine) => ({ type: word, text: filledIn(text, at, machine) }),
})

/** `check "The edge grips the stone."`: a checkpoint; `{count A}` stands for the beads of A so far, `{count}` for all, `{n}` for what a `let` or the size says. */
export const checkTechnique = spoken('check', 'check "There are {count A} of A."')
/** `note "Keep the tail short."`: words for the stitcher. */
export const noteTechnique = spoken('note', 'note "Pull firmly here."')

function filledIn(text: string, at: Span, machine: StitchMachine): string {
  return text.replace(/\{([^}]*)\}/g, (whole, inside: string) => {
    const [word, letter] = inside.trim().split(/\s+/)
    const value = word === undefined ? undefined : machine.values.get(word)
    if (value && letter === undefined) return value.unit === 'mm' ? sayLength(value.amount) : trim(value.amount, 2)
    if (word !== 'count')
      throw new LineFault(
        at,
        `"${whole}" cannot be filled in.`,
        'Use {count}, {count A}, or a name from a "let" above or from the size.',
      )
    if (letter === undefined) return String(machine.work.beads)
    return String(machine.beadsOf(machine.roles.numberOf(letter, at)).length)
  })
}
