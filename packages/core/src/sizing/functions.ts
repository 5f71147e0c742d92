/** The functions a pattern may call in its numbers. Each says what it found, so that the screen can show why. */
import type { Bead } from '../catalogue/bead'
import { sayPercent } from '../measure/units'
import { type Argument, evaluate, evaluateCount, evaluateLength, type Scope, type Value } from '../notation/expression'
import { LineFault, type Span } from '../notation/fault'
import { nearest } from '../notation/nearest'
import { arcOver } from './arc-over'
import { easeWords } from './ease-words'
import { girth } from './girth'
import { fitLength } from './repeats'
import { fitRing } from './ring-fit'
import { sharedOut } from './shared-out'

interface Outcome {
  readonly value: Value
  readonly remarks: readonly { severity: 'warning' | 'note'; span: Span; message: string; mend?: string }[]
  readonly roles: readonly string[]
}

type Call = { readonly name: string; readonly args: readonly Argument[]; readonly span: Span }

const functions: Readonly<Record<string, (call: Call, scope: Scope) => Outcome>> = {
  fit,
  floor: plain(Math.floor, 1),
  round: plain(Math.round, 1),
  even: plain((n) => 2 * Math.round(n / 2), 1),
  multiple: plain((n, of = 1) => of * Math.round(n / of), 2),
  max: plain(Math.max, 2),
  min: plain(Math.min, 2),
  L: (call, scope) => measure(call, scope, (bead) => bead.lengthMm),
  d: (call, scope) => measure(call, scope, (bead) => bead.acrossMm),
  fill,
  arc,
  repeats,
  share,
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
      return evaluate(arg.of, scope)
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

/** `L(A)`, `d(A)`: a bead's length along the hole, and across. */
function measure(call: Call, scope: Scope, of: (bead: Bead) => number): Outcome {
  const [role] = call.args
  return { value: { amount: of(beadIn(call, role, scope)), unit: 'mm' }, remarks: [], roles: [] }
}

function beadIn(call: Call, arg: Argument | undefined, scope: Scope): Bead {
  if (arg?.type !== 'role')
    throw new LineFault(
      arg?.span ?? call.span,
      `${call.name} needs a bead's letter here.`,
      `For example: ${examples[call.name] ?? 'L(A)'}.`,
    )
  const bead = scope.sizingBead(arg.role, arg.span)
  if (!bead)
    throw new LineFault(
      arg.span,
      `${arg.role} is not a bead of this pattern.`,
      `Declare it: bead ${arg.role} cylinder 11/0.`,
    )
  return bead
}

const examples: Readonly<Record<string, string>> = {
  fill: 'fill(5 * L(B), C)',
  arc: 'arc(P, C)',
  repeats: 'repeats(180 mm, 8.4 mm, even)',
}

/** `fill(5 * L(B), C)`: how many of C cover a run, to the nearest whole bead. */
function fill(call: Call, scope: Scope): Outcome {
  const [run, bead] = call.args
  if (run?.type !== 'value')
    throw new LineFault(call.span, 'fill needs a length and a bead.', `For example: ${examples.fill}.`)
  const { lengthMm, length } = scope.inArc(() => ({
    lengthMm: beadIn(call, bead, scope).lengthMm,
    length: evaluateLength(run.of, scope, 'The run'),
  }))
  const count = Math.max(1, Math.round(length / lengthMm))
  const misfit = count * lengthMm - length
  const message = `${count} cover ${Number(length.toFixed(2))} mm with ${Number(Math.abs(misfit).toFixed(2))} mm ${misfit < 0 ? 'left open' : 'too many'} (${sayPercent(misfit / length)}).`
  return {
    value: { amount: count, unit: 'count' },
    remarks: [{ severity: 'note', span: call.span, message }],
    roles: [],
  }
}

/** `arc(P, C)`: how many of C lie over half of bead P, from one end of its hole to the other. */
function arc(call: Call, scope: Scope): Outcome {
  const [over, small] = scope.inArc(() => [beadIn(call, call.args[0], scope), beadIn(call, call.args[1], scope)])
  const count = Math.max(1, Math.round(arcOver(over, small) / small.lengthMm))
  return { value: { amount: count, unit: 'count' }, remarks: [], roles: [] }
}

/** `share(56, 9, k)`: the k-th of 9 parts of 56, as even as whole numbers allow. */
function share(call: Call, scope: Scope): Outcome {
  const example = 'For example: share(56, 9, k).'
  const [whole, of, part] = call.args.map((arg) => {
    if (arg.type !== 'value') throw new LineFault(arg.span, 'share takes numbers.', example)
    return evaluateCount(arg.of, scope, 'The number', 0)
  })
  if (whole === undefined || of === undefined || part === undefined || call.args.length > 3)
    throw new LineFault(call.span, 'share needs a count, among how many, and which of them.', example)
  if (of < 1 || part < 1 || part > of)
    throw new LineFault(call.span, `There is no part ${part} of ${of}.`, `Count the parts from 1 to ${of}. ${example}`)
  const amount = sharedOut(whole, of, part) - sharedOut(whole, of, part - 1)
  return { value: { amount, unit: 'count' }, remarks: [], roles: [] }
}

/** `repeats(180 mm, 8.4 mm, even)`, `repeats(length, pitch, multiple 3)`: how many repeats make a length. */
function repeats(call: Call, scope: Scope): Outcome {
  const example = `For example: ${examples.repeats}.`
  const [length, pitch, ...rules] = call.args
  if (length?.type !== 'value' || pitch?.type !== 'value')
    throw new LineFault(call.span, 'repeats needs a length and a pitch.', example)
  let multiple = 1
  for (const rule of rules) {
    if (rule.type === 'named' && rule.name === 'multiple') multiple = evaluateCount(rule.of, scope, 'The multiple', 1)
    else if (rule.type === 'value' && rule.of.type === 'name' && rule.of.name === 'even') multiple = 2
    else throw new LineFault(rule.span, 'repeats takes "even" or "multiple" for a rule.', example)
  }
  const target = evaluateLength(length.of, scope, 'The length')
  const fit = fitLength(target, evaluateLength(pitch.of, scope, 'The pitch'), 0, multiple)
  const told = fit.candidates.map(({ count, lengthMm }) => `${count} give ${Number(lengthMm.toFixed(1))} mm`).join(', ')
  return {
    value: { amount: fit.best, unit: 'count' },
    remarks: [{ severity: 'note', span: call.span, message: `For ${Number(target.toFixed(1))} mm: ${told}.` }],
    roles: [],
  }
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
  const bead = beadIn(call, beadArg, scope)
  let multiple = 2
  for (const arg of rest) {
    if (arg.type !== 'named' || arg.name !== 'multiple')
      throw new LineFault(arg.span, 'fit takes only "multiple" besides stone and bead.', example)
    multiple = evaluateCount(arg.of, scope, 'The multiple', 1)
  }
  const settled = rest.length === 0 ? scope.settledFit() : undefined
  if (settled) multiple = settled.multiple
  const found = fitRing(girth(stone.outline), bead, multiple)
  const because = settled === undefined ? '' : `The rounds that follow need a multiple of ${settled.multiple}. `
  const best = found.candidates.find((candidate) => candidate.count === found.best)
  const remarks: Outcome['remarks'][number][] = []
  if (best) {
    remarks.push({
      severity: 'note',
      span: call.span,
      message: because + easeWords(found, stoneArg.role, beadArg.role),
    })
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
  return {
    value: { amount: found.best + (settled?.further ?? 0) * multiple, unit: 'count' },
    remarks,
    roles: [stoneArg.role, beadArg.role],
  }
}
