/** A materials list written by hand, compared with what the steps really use. */

import { normalSize } from '../catalogue/bead'
import { beadKinds } from '../catalogue/nominal-beads'
import { threadKinds } from '../catalogue/thread'
import { type Mm, mmPerInch, sayLength } from '../measure/units'
import type { Report } from '../report/report'

/** Of beads and findings their number; of thread its length in mm. */
interface Amounts {
  readonly role: string
  readonly used: number
  readonly unit?: 'mm'
}

export type Finding =
  | ({ readonly type: 'agrees'; readonly line: number } & Amounts)
  | ({ readonly type: 'short' | 'long'; readonly line: number; readonly listed: number } & Amounts)
  | ({ readonly type: 'missing' } & Amounts)
  | { readonly type: 'unused'; readonly line: number; readonly text: string }
  | { readonly type: 'ambiguous'; readonly line: number; readonly text: string; readonly roles: readonly string[] }

/** More than this share above what is used is long: spares are usual, a second bag is not. */
const fairSpare = 0.25

interface Listed {
  readonly line: number
  readonly text: string
  /** Beads; undefined where the line gives no number, or grams of an unknown bead. */
  readonly count: number | undefined
  readonly grams: number | undefined
}

interface Wanted {
  readonly role: string
  readonly used: number
  readonly words: readonly string[]
  readonly name: string
  readonly massMg: number | undefined
}

/** @param list plain text, one material a line, in any words: "63 cylinder 11/0 A", "A: 0.4 g green cylinders", "1 stone" */
export function reconcile(report: Report, list: string): Finding[] {
  const wanted = wantedOf(report)
  const found: Finding[] = []
  const met = new Set<string>()
  list.split(/\r?\n/).forEach((raw, i) => {
    const text = raw.trim().replace(/^[-*•]\s*/, '')
    if (!text || text.startsWith('#') || /:$/.test(text)) return
    if (isThread(text)) {
      met.add(threadRole)
      found.push(compareThread(text, i + 1, report.thread.totalMm))
      return
    }
    // A tool is used up by no kit.
    if (tools.test(text)) return
    const listed = readListed(text, i + 1)
    const roles = matching(listed.text, wanted)
    const [only] = roles
    if (roles.length > 1 && roles.every(({ role }) => isNamed(role, listed.text))) {
      // "A or J or K": one bag for all of them.
      for (const { role } of roles) met.add(role)
      found.push(compare(listed, together(roles)))
    } else if (roles.length > 1) {
      found.push({ type: 'ambiguous', line: listed.line, text, roles: roles.map(({ role }) => role) })
      for (const { role } of roles) met.add(role)
    } else if (!only) found.push({ type: 'unused', line: listed.line, text })
    else {
      met.add(only.role)
      found.push(compare(listed, only))
    }
  })
  for (const { role, used } of wanted) if (!met.has(role)) found.push({ type: 'missing', role, used })
  const used = report.thread.totalMm
  if (used > 0 && !met.has(threadRole)) found.push({ type: 'missing', role: threadRole, used, unit: 'mm' })
  return found
}

const threadRole = 'thread'
const tools = /\b(needles?|scissors|wax|mats?|pliers|tweezers|glue|burner)\b/i

const threadWords = new RegExp(
  `\\b(thread|beading line|braided|${[...new Set(threadKinds.map(({ kind }) => kind))].join('|')})\\b`,
  'i',
)

/** By any of the words for it; beside a bead's size they are that bead's. */
const isThread = (text: string): boolean => threadWords.test(text) && !tools.test(text) && !/\d\s*\/\s*0/.test(text)

/** In mm, by the unit as people write it. */
const lengthUnits: readonly (readonly [unit: RegExp, mm: number])[] = [
  [/^mm$/, 1],
  [/^cm$/, 10],
  [/^(m|met(er|re)s?)$/, 1000],
  [/^(in|inch(es)?|")$/, mmPerInch],
  [/^(ft|foot|feet|')$/, 12 * mmPerInch],
  [/^(yd|yards?)$/, 36 * mmPerInch],
]

function compareThread(text: string, line: number, used: Mm): Finding {
  const lengths = [
    ...text.matchAll(
      /(\d+(?:[.,]\d+)?)\s*(mm|cm|met(?:er|re)s?|m|inch(?:es)?|in|"|ft|foot|feet|'|yd|yards?)(?![a-z])/gi,
    ),
  ]
  const of = ([, figure = '', unit = '']: RegExpMatchArray) =>
    Number(figure.replace(',', '.')) * (lengthUnits.find(([each]) => each.test(unit.toLowerCase()))?.[1] ?? 0)
  // The thickness of the thread is a length too: the longest is meant.
  const listed = Math.max(0, ...lengths.map(of))
  const amounts = { line, role: threadRole, used, unit: 'mm' as const }
  if (listed < 10) return { type: 'agrees', ...amounts }
  if (listed < used) return { type: 'short', ...amounts, listed }
  // Thread is cut with something over: only what would do for another piece is long.
  return listed >= 2 * used + 500 ? { type: 'long', ...amounts, listed } : { type: 'agrees', ...amounts }
}

/** Some roles that are listed as one. */
const together = (roles: readonly Wanted[]): Wanted => ({
  ...(roles[0] as Wanted),
  role: roles.map(({ role }) => role).join(' + '),
  used: roles.reduce((sum, { used }) => sum + used, 0),
})

const isNamed = (role: string, text: string) => new RegExp(`(^|[^\\p{L}])${role}([^\\p{L}]|$)`, 'u').test(text)

function wantedOf(report: Report): Wanted[] {
  return [
    ...report.beads
      .filter((bead) => bead.total > 0)
      .map((bead) => ({
        role: bead.role,
        used: bead.total,
        words: wordsOf(bead.label),
        name: `${bead.kind} ${bead.size}`,
        massMg: bead.bead.massMg,
      })),
    ...report.stones
      .filter((stone) => stone.total > 0)
      .map((stone) => ({
        role: stone.role,
        used: stone.total,
        words: wordsOf(stone.label),
        name: 'stone',
        massMg: undefined,
      })),
    ...report.items
      .filter((item) => item.total > 0)
      .map((item) => ({
        role: item.role,
        used: item.total,
        words: wordsOf(item.label),
        name: item.name,
        massMg: undefined,
      })),
  ]
}

const wordsOf = (text: string) => text.toLowerCase().match(/\p{L}{3,}/gu) ?? []

function readListed(text: string, line: number): Listed {
  const grams = /(\d+(?:[.,]\d+)?)\s*(?:g|grams?)\b/i.exec(text)?.[1]
  const rest = text.replace(/\d+\s*\/\s*0/g, ' ').replace(/\d+(?:[.,]\d+)?\s*(?:mm|cm|g|grams?)\b/gi, ' ')
  const count = /\b(\d+)\b/.exec(rest)?.[1]
  return {
    line,
    text,
    grams: grams === undefined ? undefined : Number(grams.replace(',', '.')),
    count: count === undefined ? undefined : Number(count),
  }
}

/** By letter; else by name, and among those of one name by the words of its label. */
function matching(text: string, wanted: readonly Wanted[]): readonly Wanted[] {
  const letters = wanted.filter(({ role }) => isNamed(role, text))
  if (letters.length > 0) return letters
  const lower = text.toLowerCase()
  const stones = wanted.filter(({ name }) => name === 'stone')
  // "Round" is a bead's kind and a stone's shape.
  if (/\bstones?\b/.test(lower) && stones.length > 0) {
    const labelled = stones.filter(({ words }) => words.some((word) => lower.includes(word)))
    return labelled.length > 0 ? labelled : stones
  }
  const kind = beadKinds.find((each) => lower.includes(each))
  const size = /\d+\s*\/\s*0|\d+(?:\.\d+)?(?:\s*x\s*\d+(?:\.\d+)?)*\s*mm/i.exec(text)?.[0]
  const named = wanted.filter(({ name }) => {
    if (kind) return name.startsWith(kind) && (!size || name.endsWith(normalSize(size.replace(/\s*\/\s*/, '/'))))
    if (size && /\/0$/.test(size.replace(/\s/g, ''))) return name.endsWith(size.replace(/\s/g, ''))
    return lower.includes(name.toLowerCase())
  })
  const labelled = (named.length > 0 ? named : wanted).filter(({ words }) => words.some((word) => lower.includes(word)))
  return labelled.length > 0 ? labelled : named
}

function compare(listed: Listed, { role, used, massMg }: Wanted): Finding {
  const { line } = listed
  const beads =
    listed.grams !== undefined && massMg !== undefined
      ? Math.floor((listed.grams * 1000) / massMg + 1e-9)
      : listed.count
  if (beads === undefined) return { type: 'agrees', line, role, used }
  if (beads < used) return { type: 'short', line, role, listed: beads, used }
  // A weighed bag is never exact: only one that holds more than twice is long.
  const most = listed.grams !== undefined ? Math.max(2 * used, used + 50) : Math.max(used * (1 + fairSpare), used + 10)
  return beads > most ? { type: 'long', line, role, listed: beads, used } : { type: 'agrees', line, role, used }
}

/** A finding in a sentence; the list's line first where it has one. */
export function sayFinding(finding: Finding): string {
  const say = (amount: number) => ('unit' in finding && finding.unit === 'mm' ? sayLength(amount) : String(amount))
  switch (finding.type) {
    case 'agrees':
      return `line ${finding.line}: ${finding.role} agrees (${say(finding.used)} used)`
    case 'short':
    case 'long':
      return `line ${finding.line}: ${finding.role} is ${finding.type}: ${say(finding.listed)} listed, ${say(finding.used)} used`
    case 'missing':
      return `missing: ${finding.role}, ${say(finding.used)} used`
    case 'unused':
      return `line ${finding.line}: nothing in the steps uses "${finding.text}"`
    case 'ambiguous':
      return `line ${finding.line}: "${finding.text}" may be ${finding.roles.join(' or ')}; name the letter`
  }
}
