import { sayExtents } from '../form/form-report'
import type { BillLine } from '../kit/bill'
import { threadRole } from '../kit/bill'
import { sayInches, sayLength, sayMass, saySpans } from '../measure/units'
import type { Report, StatementReport } from '../report/report'
import type { Action } from '../stitch/action'
import type { ThreadSettings } from '../thread/settings'
import { andSoOn, capital, cautionsFor, marksUsed, repeatSentence, sayCounts, sentenceFor, toolsFor } from './english'
import type { MaterialRow, Step, WrittenPattern } from './written-pattern'

/** What the pattern is written for, beside its report. */
export interface Edition {
  /** Undefined for a draft. */
  readonly version: number | undefined
  readonly colourway: string | undefined
  readonly settings: ThreadSettings
  /** The kit's bill, with the items' names; empty when no colourway is chosen. */
  readonly bill: readonly (BillLine & { readonly name: string; readonly colour: string | undefined })[]
}

/** Tells a report as a pattern a person can follow. A report with errors is written as a draft, whatever the edition. */
export function writePattern(report: Report, edition: Edition): WrittenPattern {
  const draft = edition.version === undefined || !report.sound
  const named = draft ? 'Draft' : `Version ${edition.version}`
  const makes = report.pair ? 'a pair' : report.makes === 1 ? 'one piece' : `${report.makes} pieces`
  return {
    title: report.pattern || 'Pattern without a name',
    facts: [
      named,
      report.size && `size ${report.size}`,
      edition.colourway && `in ${edition.colourway}`,
      `makes ${makes}`,
      report.form?.progress.settled && `finished ${sayExtents(report.form)}`,
    ].flatMap((fact) => (fact ? [fact] : [])),
    edition: named,
    draft,
    size: report.size,
    colourway: edition.colourway ?? '',
    makes,
    materials: [
      ...(edition.bill.length > 0 ? edition.bill.map(materialFromBill) : nominalMaterials(report)),
      ...findings(report),
    ],
    thread: threadWords(report, edition.settings),
    tools: toolsFor(report.threadChoice.needle, edition.settings),
    cautions: cautionsFor(edition.settings, report.stones.length > 0),
    marks: marksUsed,
    parts: partsOf(report, edition.settings),
    totals: sayCounts(
      Object.fromEntries(report.beads.filter((bead) => bead.each > 0).map((bead) => [bead.role, bead.each])),
    ),
  }
}

function materialFromBill(line: Edition['bill'][number]): MaterialRow {
  const roles = line.roles.map((role) => (role === threadRole ? 'Thread' : role)).join(' + ')
  if (line.unit === 'mm') {
    return {
      roles,
      name: line.name,
      colour: line.colour,
      exact: sayLength(line.exact),
      inKit: sayLength(line.quantity),
    }
  }
  const inKit = line.unit === 'mg' ? `${sayMass(line.quantity)} (about ${line.standsFor})` : String(line.quantity)
  return { roles, name: line.name, colour: line.colour, exact: String(line.exact), inKit }
}

/** Without a colourway the pattern's own words stand for the beads. */
function nominalMaterials(report: Report): MaterialRow[] {
  const named = (name: string, label: string) => (label ? `${name}, ${label}` : name)
  return [
    ...report.beads
      .filter((bead) => bead.total > 0)
      .map((bead) => ({
        roles: bead.role,
        name: named(`${bead.kind} ${bead.size}`, bead.label),
        colour: undefined,
        exact: String(bead.total),
        inKit: sayMass(bead.totalMg),
      })),
    ...report.stones
      .filter((stone) => stone.total > 0)
      .map((stone) => ({
        roles: stone.role,
        name: named('stone', stone.label),
        colour: undefined,
        exact: String(stone.total),
        inKit: String(stone.total),
      })),
  ]
}

/** Findings are not kept as colours, so the pattern's own words stand for them. */
const findings = (report: Report): MaterialRow[] =>
  report.items
    .filter((item) => item.total > 0)
    .map(({ role, name, label, total }) => ({
      roles: role,
      name: label ? `${name}, ${label}` : name,
      colour: undefined,
      exact: String(total),
      inKit: String(total),
    }))

function threadWords(report: Report, settings: ThreadSettings): string[] {
  const { thread, strands } = report.threadChoice
  const say = (mm: number) => `${sayLength(mm)} (${sayInches(mm)}, ${saySpans(mm, settings.spanMm)})`
  const { cuts } = report.thread
  if (cuts.length === 0) return []
  const each = report.makes === 1 ? '' : ' for each piece'
  const kinds = new Map<number, number>()
  for (const cut of cuts) kinds.set(cut, (kinds.get(cut) ?? 0) + 1)
  const cutWords = [...kinds].map(([cut, times]) => `${times} x ${say(cut)}`).join(' and ')
  return [
    `${capital(thread.kind)} ${thread.size}, ${strands === 2 ? 'doubled' : 'single'}: cut ${cutWords}${each}.`,
    `That leaves a tail of ${sayLength(report.threadChoice.tailMm ?? settings.tailMm)} to begin with and ${sayLength(settings.weaveInMm)} to weave in, for a ${settings.tension} hand.`,
  ]
}

/**
 * Lines of a repeat that other lines of it follow: how many beads there are after them is different each time, so only the last
 * of a repeat tells it.
 */
function partlyDone({ statements }: Report): Set<number> {
  const partly = new Set<number>()
  for (const { action, line } of statements) {
    if (action.type !== 'repeat') continue
    const adding = statements.filter(
      (each) => each.line > line && each.line <= action.lastLine && Object.keys(each.added).length > 0,
    )
    for (const each of adding.slice(0, -1)) partly.add(each.line)
  }
  return partly
}

/** A round that is done again and again has another number each time, so it is told without one. */
const unnumbered = (action: Action): Action => (action.type === 'round' ? { ...action, round: 0 } : action)

/** A line in words: once, or turn by turn where its turns differ; the head of a repeat says how many steps it holds. */
function textOf(statement: StatementReport, report: Report, settings: ThreadSettings): string | undefined {
  const { action, turns, line } = statement
  if (action.type === 'repeat') {
    const held = report.statements.filter((each) => each.line > line && each.line <= action.lastLine)
    const steps = held.filter(
      (each) => each.action.type === 'repeat' || sentenceFor(each.action, settings) !== undefined,
    )
    if (steps.length === 0) return undefined
    const times = turns.length > 0 ? turns.map((turn) => (turn.type === 'repeat' ? turn.times : 0)) : [action.times]
    return repeatSentence(steps.length, times, action.places) + (turns.length > 0 ? untold(statement) : '')
  }
  if (turns.length === 0) return sentenceFor(statement.times > 1 ? unnumbered(action) : action, settings)
  const told = turns.map((turn) => sentenceFor(turn, settings) ?? '')
  return told.map((sentence, i) => `Turn ${i + 1}: ${sentence}`).join(' ') + untold(statement)
}

const untold = ({ times, turns }: StatementReport) => (times > turns.length ? andSoOn(times) : '')

function partsOf(report: Report, settings: ThreadSettings): { name: string; steps: Step[] }[] {
  const parts: { name: string; steps: Step[] }[] = []
  let number = 0
  const partly = partlyDone(report)
  for (const statement of report.statements) {
    const text = textOf(statement, report, settings)
    if (text === undefined) continue
    let part = parts[parts.length - 1]
    if (!part || part.name !== statement.part) {
      part = { name: statement.part, steps: [] }
      parts.push(part)
    }
    const adds = Object.keys(statement.added).length > 0
    const { type } = statement.action
    part.steps.push({
      number: ++number,
      line: statement.line,
      text,
      added: adds ? sayCounts(statement.added) : '',
      running: adds && !partly.has(statement.line) ? sayCounts(statement.totals) : '',
      kind: type === 'check' || type === 'note' ? type : 'stitch',
    })
  }
  return parts
}
