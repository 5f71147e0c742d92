/**
 * Beads of the shelf that could stand in a role: by kind and size first, then by how near their colour is, each with what it would do. A bead's
 * figures, not its colour, decide what changes, so that a shelf of thousands is worked through in a few dozen evaluations.
 */
import type { Bead } from '../catalogue/bead'
import { difference } from '../colour/difference'
import { verdictOf as contrastOf, type Verdict } from '../colour/judgement'
import { type Choices, evaluatePattern } from '../evaluate/evaluate-pattern'
import { type Bill, billOf, type KitItem } from '../kit/bill'
import { costOfKit } from '../kit/cost'
import type { Touching } from '../report/measures'
import type { Report } from '../report/report'
import type { Counting } from '../sizing/counting'
import { type Consequence, consequenceOf } from './consequence'

export interface Candidate {
  readonly id: number
  readonly colour: string
  readonly finish: string
  readonly bead: Bead
  readonly kit: KitItem
  /** Free on the shelf, in the kit item's unit. */
  readonly free: number
}

export interface Question {
  readonly source: string
  /** As it is now: the size, the options, the beads of the colourway. */
  readonly choices: Choices
  readonly role: string
  /** Beads of the kind that is there, or of others; both when absent. */
  readonly kinds?: 'same' | 'other'
  readonly now: Candidate | undefined
  readonly candidates: readonly Candidate[]
  /** What the colourway gives the other roles, for the bill and for contrast. */
  readonly kit: Readonly<Record<string, KitItem>>
  readonly colours: Readonly<Record<string, string>>
  readonly touching: readonly Touching[]
  /** Kits that are wanted; more than that rescues nothing. */
  readonly kits: number
}

export interface Substitute {
  readonly id: number
  /** CIEDE2000 from the bead there now. */
  readonly apart: number
  readonly sameKind: boolean
  readonly sameSize: boolean
  /** As long and as wide, within two per cent: another maker's "same size" often is not. */
  readonly sameFigures: boolean
  readonly sameFinish: boolean
  /** Runs are refilled where a bead of another kind is far from as long; else all counts follow. */
  readonly counting: Counting
  readonly consequence: Consequence
  /** Of one kit's beads and thread, in minor units of money; undefined where some price is not known. */
  readonly cost: { readonly before: number; readonly after: number } | undefined
  /** Kits that the free stock of it fills. */
  readonly kits: number
  /** Of those wanted, how many more than with the bead there now. */
  readonly rescued: number
  /** The neighbour in the piece that it is nearest to in colour: among those of its own kind and size, if there are any. */
  readonly nearest:
    | { readonly role: string; readonly difference: number; readonly verdict: Verdict; readonly alike: boolean }
    | undefined
}

/** A bead more than this wider or longer than the one there is no substitute for it, mm times. */
const maxTimes = 1.6
/** One of another kind may be this much longer: it stands for a run of beads, as a bugle does. */
const maxRun = 8

/**
 * @param most so many are worked out and given, best first
 * @throws RangeError when the role is no bead's
 */
export function substitutesFor(question: Question, most = 24): Substitute[] {
  const { source, choices, role, kinds, now, candidates, kits } = question
  const before = evaluatePattern(source, choices).report
  const there = choices.beads?.[role] ?? before.beads.find((bead) => bead.role === role)?.bead
  if (!there) throw new RangeError(`${role} is no bead of this pattern.`)
  const reports = new Map<string, Report>()
  const reportWith = (bead: Bead, counting: Counting): Report => {
    const key = JSON.stringify([bead.kind, bead.size, bead.lengthMm, bead.acrossMm, bead.boreMm])
    const known = reports.get(key)
    if (known) return known
    const made = evaluatePattern(source, withBead(choices, role, bead, counting)).report
    reports.set(key, made)
    return made
  }
  const others = new Set(Object.entries(question.kit).flatMap(([of, { id }]) => (of === role ? [] : [id])))
  // What another role is made of already takes the difference between the two away.
  const worthHere = (each: Substitute) => worth(each, kits) + (others.has(each.id) ? 150 : 0)
  const kitsNow = now ? kitsFrom(before, question, now) : 0
  const costNow = now && costWith(before, question, now)
  return candidates
    .filter(
      ({ id, bead }) =>
        id !== now?.id &&
        bead.bores === there.bores &&
        near(bead, there) &&
        (kinds === undefined || (bead.kind === there.kind) === (kinds === 'same')),
    )
    .map((each) => ({
      candidate: each,
      apart: now ? difference(now.colour, each.colour) : 0,
      sameKind: each.bead.kind === there.kind,
      sameSize: each.bead.size === there.size,
      sameFigures: within(each.bead.lengthMm, there.lengthMm) && within(each.bead.acrossMm, there.acrossMm),
    }))
    .sort((a, b) => costOf(a) - costOf(b) || a.candidate.id - b.candidate.id)
    .slice(0, most * 3)
    .map(({ candidate, apart, sameKind, sameSize, sameFigures }): Substitute => {
      const counting = sameKind ? 'all' : 'runs'
      const after = reportWith(candidate.bead, counting)
      const cost = costWith(after, question, candidate)
      const able = kitsFrom(after, question, candidate)
      return {
        id: candidate.id,
        apart,
        sameKind,
        sameSize,
        sameFigures,
        sameFinish: candidate.finish === now?.finish,
        counting,
        consequence: consequenceOf(before, after),
        cost: costNow === undefined || cost === undefined ? undefined : { before: costNow, after: cost },
        kits: able,
        rescued: Math.max(0, Math.min(able, kits) - Math.min(kitsNow, kits)),
        nearest: nearestTo(candidate, question, before),
      }
    })
    .filter(({ consequence }) => consequence.faults.length === 0)
    .sort((a, b) => worthHere(a) - worthHere(b) || a.id - b.id)
    .slice(0, most)
}

/** A pattern's choices with another bead in a role. */
export const withBead = (choices: Choices, role: string, bead: Bead, counting: Counting): Choices => ({
  ...choices,
  beads: { ...choices.beads, [role]: bead },
  counting: { ...choices.counting, [role]: counting },
})

const near = (a: Bead, b: Bead) =>
  withinTimes(a.acrossMm / b.acrossMm, maxTimes) &&
  withinTimes(a.lengthMm / b.lengthMm, a.kind === b.kind ? maxTimes : maxRun)

const withinTimes = (times: number, most: number) => times < most && times > 1 / most

const within = (a: number, b: number) => Math.abs(a / b - 1) <= 0.02

/** Another kind is worse than another size, and that than any colour; another maker's figures are worth a visible difference of colour. */
const costOf = ({
  apart,
  sameKind,
  sameSize,
  sameFigures,
}: Pick<Substitute, 'apart' | 'sameKind' | 'sameSize' | 'sameFigures'>) =>
  apart + (sameKind ? 0 : 60) + (sameSize ? 0 : 40) + (sameFigures ? 0 : 6)

/** What fills all the kits comes first; then what looks and behaves most like what is there; what would be taken for its neighbour last. */
function worth(each: Substitute, kits: number): number {
  const fills = kits === 0 || each.kits >= kits ? 0 : 200
  const confuses =
    each.nearest?.alike && each.nearest.verdict !== 'apart' && each.nearest.verdict !== 'accent' ? 100 : 0
  const sits = each.consequence.fits.every(({ verdict }) => verdict === 'snug' || verdict === 'loose') ? 0 : 80
  return (
    fills +
    confuses +
    sits +
    costOf(each) +
    2 * each.consequence.lines.length +
    30 * each.consequence.crowded.length +
    (each.sameFinish ? 0 : 4) +
    dearer(each)
  )
}

/** A kit that costs half as much again is worth a clearly visible difference of colour. */
const dearer = ({ cost }: Substitute) =>
  cost && cost.before > 0 ? 40 * Math.max(0, Math.min(1, cost.after / cost.before - 1)) : 0

/** Kits that the free stock of one item fills, by a bill in which it stands in the role. */
export function kitsFrom(report: Report, { role, kit }: Pick<Question, 'role' | 'kit'>, candidate: Candidate): number {
  const { lines } = billWith(report, { role, kit }, candidate)
  const line = lines.find(({ itemId }) => itemId === candidate.id)
  return line && line.quantity > 0 ? Math.floor(candidate.free / line.quantity) : 0
}

const billWith = (report: Report, { role, kit }: Pick<Question, 'role' | 'kit'>, candidate: Candidate): Bill =>
  billOf(report, { ...kit, [role]: candidate.kit })

/** Undefined where some price is not known. */
function costWith(report: Report, question: Question, candidate: Candidate): number | undefined {
  const costs = [...Object.values(question.kit), candidate.kit].map(({ id, unitCost }) => [id, unitCost] as const)
  const { cost, unpriced } = costOfKit(billWith(report, question, candidate).lines, new Map(costs))
  return unpriced.length === 0 ? cost : undefined
}

function nearestTo(candidate: Candidate, { role, touching, colours }: Question, report: Report): Substitute['nearest'] {
  let found: Substitute['nearest']
  for (const { roles } of touching) {
    if (!roles.includes(role) || roles[0] === roles[1]) continue
    const other = roles[0] === role ? roles[1] : roles[0]
    const colour = colours[other]
    const neighbour = report.beads.find((bead) => bead.role === other)
    if (colour === undefined || !neighbour) continue
    const apart = difference(candidate.colour, colour)
    const alike = neighbour.kind === candidate.bead.kind && neighbour.size === candidate.bead.size
    if (!found || Number(alike) > Number(found.alike) || (alike === found.alike && apart < found.difference))
      found = { role: other, difference: apart, verdict: contrastOf(apart), alike }
  }
  return found
}
