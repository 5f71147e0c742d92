/** What is wrong or missing before a pattern is given out, each with where it is mended. */
import { dressedIn } from '../colour/dressed'
import { judge } from '../colour/judgement'
import { evaluatePattern } from '../evaluate/evaluate-pattern'
import { formedPattern } from '../form/form-pattern'
import { billOf, misfitWords, rolesToChoose, threadRole } from '../kit/bill'
import type { Chosen } from '../kit/choice'
import { soundForm } from '../report/form-report'
import type { Report } from '../report/report'
import { minSamples } from '../thread/sampled'
import { type Gathered, madeIn } from './edition'
import { wordsAside } from './step-words'
import { stepKeys } from './write-pattern'

export interface Lack {
  /** What keeps it from being published at all, or what had better be seen to. */
  readonly weight: 'must' | 'should'
  readonly text: string
  readonly where: 'ledger' | 'colours' | 'walk' | 'words'
  /** Of the ledger. */
  readonly line?: number
  readonly colourway?: string
}

export function checkEdition(gathered: Gathered): Lack[] {
  const { source, colourways, words, timed } = gathered
  const formed = (size: string, of?: Gathered['choices']) => {
    const { chosen, choices } = madeIn(gathered, size, of)
    return { chosen, report: formedPattern(source, choices).evaluated.report }
  }
  const { report } = formed(gathered.size)
  const others = report.sizes.filter((size) => size !== report.size).map((size) => formed(size).report)
  return [
    ...inText(report),
    ...others.flatMap((other) => inText(other).filter(({ weight }) => weight === 'must')),
    ...inForm(report),
    ...unchecked(report),
    ...colourways.flatMap((each) => misfitsIn(gathered, each, report.sizes)),
    ...colourways.flatMap((each) => {
      const { chosen, report: dressed } = formed(gathered.size, each.choices)
      return inColourway(each.name, chosen, dressed)
    }),
    ...(timed.length < minSamples
      ? [
          {
            weight: 'should' as const,
            where: 'walk' as const,
            text: `${timed.length === 0 ? 'No sample has' : `Only ${timed.length} of ${minSamples} samples have`} been stitched and logged in this size: thread and time are computed, and nothing has borne them out.`,
          },
        ]
      : []),
    ...wordsAside(words, stepKeys(report)).map(({ text }) => ({
      weight: 'should' as const,
      where: 'words' as const,
      text: `Your own words for "${text}" no longer match a step.`,
    })),
  ]
}

/** Stones of another size than the pattern's, in any of its sizes. */
function misfitsIn(
  gathered: Gathered,
  { name, choices }: Gathered['colourways'][number],
  sizes: readonly string[],
): Lack[] {
  return (sizes.length > 0 ? sizes : ['']).flatMap((size) => {
    const { chosen, choices: here } = madeIn(gathered, size, choices)
    const { misfits } = billOf(evaluatePattern(gathered.source, here).report, chosen.kit)
    return misfits.map((misfit) => ({
      weight: 'must' as const,
      where: 'colours' as const,
      colourway: name,
      text: `${name}${size ? `, ${size}` : ''}: ${misfitWords(misfit)}`,
    }))
  })
}

/** Faults, roles that are declared and not used, thread and holes. */
function inText(report: Report): Lack[] {
  const inSize = report.size ? ` (${report.size})` : ''
  return report.diagnostics
    .filter(({ severity }) => severity !== 'note')
    .map(({ severity, line, message }) => ({
      weight: severity === 'error' ? ('must' as const) : ('should' as const),
      where: 'ledger' as const,
      line,
      text: `${message}${inSize}`,
    }))
}

function inForm(report: Report): Lack[] {
  const form = soundForm(report)
  if (!form) {
    const why = report.form?.findings[0]?.text ?? 'Its form could not be computed: size and thread are estimates.'
    return [{ weight: 'should', where: 'ledger', text: why }]
  }
  return form.findings
    .filter(({ tone }) => tone === 'trouble')
    .map(({ text, line }) => ({ weight: 'should' as const, where: 'ledger' as const, text, ...(line ? { line } : {}) }))
}

/** So many rounds one after the other without a checkpoint are a long way to unpick. */
const maxUnchecked = 8

function unchecked(report: Report): Lack[] {
  const found: Lack[] = []
  let rounds = 0
  let first = 0
  const end = () => {
    if (rounds >= maxUnchecked)
      found.push({
        weight: 'should',
        where: 'ledger',
        line: first,
        text: `${rounds} rounds without a checkpoint: add a line such as check "There are now 36 all round."`,
      })
    rounds = 0
  }
  for (const { action, line, times } of report.statements) {
    if (action.type === 'check') end()
    else if (action.type === 'round') {
      if (rounds === 0) first = line
      rounds += times
    }
  }
  end()
  return found
}

function inColourway(name: string, chosen: Chosen<Gathered['items'][number]>, report: Report): Lack[] {
  const lack = (text: string): Lack => ({
    weight: 'should',
    where: 'colours',
    colourway: name,
    text: `${name}: ${text}`,
  })
  const bare = rolesToChoose(report).filter((role) => !chosen.items[role])
  const { neighbours, ramps } = judge(
    dressedIn(report, chosen.items),
    soundForm(report)?.touching ?? [],
    chosen.colours[threadRole],
  )
  return [
    ...bare.map((role) => lack(`${role === threadRole ? 'thread' : role} has no item.`)),
    ...neighbours
      .filter(({ alike, verdict }) => alike && (verdict === 'confuses' || verdict === 'near'))
      .map(({ roles: [a, b], difference }) =>
        lack(`${a} and ${b} are taken for each other (${difference.toFixed(1)}).`),
      ),
    ...ramps.filter(({ runs }) => !runs).map(({ roles: ramp }) => lack(`${ramp.join(', ')} do not run light to dark.`)),
  ]
}
