import { type Expression, evaluate, readExpression } from '../../notation/expression'
import { LineFault } from '../../notation/fault'
import type { Technique } from '../technique'

/** `let n = fit(S, A, multiple 4)` gives a number a name. */
export const letTechnique: Technique<{ name: string; of: Expression }> = {
  word: 'let',
  read(cursor) {
    const name = cursor.expect('Word', 'a name in lower case', 'For example: let n = 36.').text
    if (!cursor.take('Mark', '='))
      throw new LineFault(
        cursor.peek() ?? cursor.end,
        `Expected "=" after "${name}".`,
        `For example: let ${name} = 36.`,
      )
    return { name, of: readExpression(cursor) }
  },
  work({ name, of }, machine) {
    const value = evaluate(of, machine)
    machine.values.set(name, value)
    return { type: 'let', name, amount: value.amount, unit: value.unit }
  },
}
