/** What another bead in a role does to a pattern: every number that changes beside the old one. */
import type { Mm } from '../measure/units'
import type { Report } from '../report/report'
import { type FitVerdict, verdictOf } from '../sizing/ring-fit'
import type { Refilled } from '../stitch/roles'

export interface LineChange {
  readonly line: number
  readonly text: string
  readonly before: Readonly<Record<string, number>>
  readonly after: Readonly<Record<string, number>>
}

export interface Consequence {
  /** Lines that add other numbers of beads. */
  readonly lines: readonly LineChange[]
  /** Beads in all that the pattern makes, of roles whose number changes. */
  readonly counts: readonly { readonly role: string; readonly before: number; readonly after: number }[]
  readonly fits: readonly {
    readonly stone: string
    readonly before: number
    readonly after: number
    readonly verdict: FitVerdict
  }[]
  readonly threadMm: { readonly before: Mm; readonly after: Mm }
  /** Written runs that the other bead fills, with what they come out longer or shorter. */
  readonly refilled: readonly (Omit<Refilled, 'statement'> & { readonly line: number })[]
  /** Roles whose holes are too full now, and were not before. */
  readonly crowded: readonly string[]
  /** Faults that were not there before. */
  readonly faults: readonly string[]
}

/** What keeps the other bead from being as good, whatever its counts. */
export interface Troubles {
  /** Rings that held their stone and do not with it. */
  readonly rings: readonly { readonly stone: string; readonly verdict: 'too tight' | 'too big' }[]
  readonly crowded: readonly string[]
  /** Lines that cannot be stitched with it. */
  readonly faults: readonly string[]
}

export const troublesIn = ({ fits, crowded, faults }: Consequence): Troubles => ({
  rings: fits.flatMap(({ stone, before, verdict }) =>
    (verdict === 'too tight' || verdict === 'too big') && verdictOf(before) !== verdict ? [{ stone, verdict }] : [],
  ),
  crowded,
  faults,
})

export const isTrouble = ({ rings, crowded, faults }: Troubles): boolean =>
  rings.length + crowded.length + faults.length > 0

/** @param before,after reports of one text in one size, with one bead changed */
export function consequenceOf(before: Report, after: Report): Consequence {
  const total = (report: Report, role: string) => report.beads.find((bead) => bead.role === role)?.total ?? 0
  const known = new Map(before.statements.map((each) => [each.line, each]))
  const lines = after.statements.flatMap(({ line, text, added }): LineChange[] => {
    const old = known.get(line)?.added ?? {}
    return sameCounts(old, added) ? [] : [{ line, text, before: old, after: added }]
  })
  const full = (report: Report) => new Set(report.crowding.flatMap(({ role, room }) => (room < 0 ? [role] : [])))
  const wasFull = full(before)
  const said = new Set(before.diagnostics.map(({ message }) => message))
  return {
    lines,
    counts: after.beads.flatMap(({ role, total: now }) => {
      const then = total(before, role)
      return then === now ? [] : [{ role, before: then, after: now }]
    }),
    fits: after.fits.map(({ stone, ease, verdict }) => ({
      stone,
      before: before.fits.find((fit) => fit.stone === stone)?.ease ?? ease,
      after: ease,
      verdict,
    })),
    threadMm: { before: before.thread.totalMm, after: after.thread.totalMm },
    refilled: after.refilled.map(({ statement, ...rest }) => ({
      ...rest,
      line: after.statements[statement]?.line ?? 1,
    })),
    crowded: [...full(after)].filter((role) => !wasFull.has(role)),
    faults: after.diagnostics.flatMap(({ severity, line, message }) =>
      severity === 'error' && !said.has(message) ? [`Line ${line}: ${message}`] : [],
    ),
  }
}

const sameCounts = (a: Readonly<Record<string, number>>, b: Readonly<Record<string, number>>) =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].every((role) => (a[role] ?? 0) === (b[role] ?? 0))
