/** The functions a pattern may call in its numbers. Each says what it found, so that the screen can show why. */

import { type Argument, reckon, reckonCount, type Scope, type Value } from '../notation/expression'
import { LineFault, type Span } from '../notation/fault'
import { nearest } from '../notation/nearest'
import { easeWords } from './ease-words'
import { girth } from './girth'
import { fitRing } from './ring-fit'

interface Outcome {
  readonly value: Value
  readonly remarks: readonly { severity: 'warning' | 'note'; span: Span; message: string; mend?: string }[]
  readonly roles: readonly string[]
}

type Call = { readonly name: string; readonly args: readonly Argument[]; readonly span: Span }

const functions: Readonly<Record<string, (call: Call, scope: Scope) => Outcome>> = {
  fit,
  floor: plain(Math.floor, 1),
  max: plain(Math.max, 2),
  min: plain(Math.min, 2),
}

/** A function of numbers that keeps their unit. */
function plain(of: (...numbers: number[]) => number, least: number) {
  return (call: Call, scope: Scope): Outcome => {
    const values = call.args.map((arg) => {
      if (arg.type !== 'value')
        throw new LineFault(
          arg.span,
          `${call.name} takes numbers.`,
          `For example: ${call.name}(${least === 1 ? 'n/2' : 'n, 12'}).`,
        )
      return reckon(arg.of, scope)
    })
    const [first] = values
    if (!first || values.length < least)
      throw new LineFault(
        call.span,
        `${call.name} needs ${least === 1 ? 'a number' : 'two numbers'}.`,
        `For example: ${call.name}(${least === 1 ? 'n/2' : 'n, 12'}).`,
      )
    if (values.some((value) => value.unit !== first.unit))
      throw new LineFault(call.span, 'A count and a length cannot be compared.', 'Give all a unit, or none.')
    return { value: { amount: of(...values.map((value) => value.amount)), unit: first.unit }, remarks: [], roles: [] }
  }
}

export function callFunction(call: Call, scope: Scope): Outcome {
  const run = Object.hasOwn(functions, call.name) ? functions[call.name] : undefined
  if (run) return run(call, scope)
  const guess = nearest(call.name, Object.keys(functions))
  throw new LineFault(
    { from: call.span.from, to: call.span.from + call.name.length },
    `"${call.name}" is not something that can be computed here.`,
    guess ? `Did you mean ${guess}(...)?` : 'Known: fit(S, A, multiple 4), floor, max, min.',
    guess,
  )
}

/** `fit(S, A, multiple 4)`: how many of A go round stone S. */
function fit(call: Call, scope: Scope): Outcome {
  const [stoneArg, beadArg, ...rest] = call.args
  const example = 'For example: fit(S, A, multiple 4).'
  if (stoneArg?.type !== 'role' || beadArg?.type !== 'role') {
    throw new LineFault(call.span, 'fit needs a stone and a bead.', example)
  }
  const stone = scope.stone(stoneArg.role, stoneArg.span)
  if (!stone)
    throw new LineFault(
      stoneArg.span,
      `${stoneArg.role} is not a stone of this pattern.`,
      `Declare it: stone ${stoneArg.role} round 14 mm.`,
    )
  const bead = scope.bead(beadArg.role, beadArg.span)
  if (!bead)
    throw new LineFault(
      beadArg.span,
      `${beadArg.role} is not a bead of this pattern.`,
      `Declare it: bead ${beadArg.role} cylinder 11/0.`,
    )
  let multiple = 2
  for (const arg of rest) {
    if (arg.type !== 'named' || arg.name !== 'multiple')
      throw new LineFault(arg.span, 'fit takes only "multiple" besides stone and bead.', example)
    multiple = reckonCount(arg.of, scope, 'The multiple', 1)
  }
  const found = fitRing(girth(stone.outline), bead, multiple)
  const best = found.candidates.find((candidate) => candidate.count === found.best)
  const remarks: Outcome['remarks'][number][] = []
  if (best) {
    remarks.push({ severity: 'note', span: call.span, message: easeWords(found, stoneArg.role, beadArg.role) })
    if (best.verdict === 'too tight' || best.verdict === 'too big') {
      const even = fitRing(girth(stone.outline), bead, 2)
      remarks.push({
        severity: 'warning',
        span: call.span,
        message: `No multiple of ${multiple} sits well round ${stoneArg.role}: ${found.best} is ${best.verdict}.`,
        mend:
          multiple === 2
            ? "Try a finer bead or another maker's."
            : `Another motif length would let ${even.best} be used; or try a finer bead, or another maker's.`,
      })
    }
  }
  return { value: { amount: found.best, unit: 'count' }, remarks, roles: [stoneArg.role, beadArg.role] }
}
