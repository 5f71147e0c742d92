/**
 * Colourways that the shelf can fill: the beads stay of the kind and size that they are, so that no count changes; the colours are others, and
 * stand to each other as those of the colourway one begins with.
 */
import type { Lab65 } from 'culori'
import { difference, differenceOfLab, labOf } from '../colour/difference'
import { apartFrom, judge, type RoleColour } from '../colour/judgement'
import { billOf, type KitItem } from '../kit/bill'
import { counted } from '../measure/counted'
import type { Touching } from '../report/measures'
import type { Report } from '../report/report'
import type { Candidate } from './substitutes'

/** Where the colours come from: what the shelf has, round the whole circle of hues; one colour for the chief bead; a picture's palette. */
export type ColourSource =
  | { readonly type: 'shelf' }
  | { readonly type: 'seed'; readonly colour: string }
  | { readonly type: 'palette'; readonly colours: readonly string[] }

export interface ProposalQuestion {
  readonly report: Report
  /** The colourway one begins with. */
  readonly roles: readonly RoleColour[]
  readonly kit: Readonly<Record<string, KitItem>>
  readonly touching: readonly Touching[]
  readonly thread: string | undefined
  /** Of the shelf, each with its name. */
  readonly candidates: readonly Candidate[]
  /** What is free of the items that stay, stones and thread among them, in their own units. */
  readonly free: Readonly<Record<number, number>>
  /** So many kits must be filled. */
  readonly kits: number
  readonly from: ColourSource
}

export interface Proposal {
  /** The item of each role. */
  readonly items: Readonly<Record<string, number>>
  /** Kits that the free stock of the scarcest fills, of what stays as well as of what is new. */
  readonly kits: number
  /** Mean difference from the colours aimed at, CIEDE2000. */
  readonly away: number
  /** How much the contrasts between roles differ from the original's, CIEDE2000, mean of the pairs. */
  readonly contrastsOff: number
}

type Lab = readonly [l: number, a: number, b: number]

/** Roles that share an item and so will share the next. */
interface Voice {
  readonly roles: readonly RoleColour[]
  readonly now: Lab
  readonly count: number
}

interface Choice {
  readonly candidate: Candidate
  readonly lab: Lab
  readonly kits: number
}

/** Kept at each step of the search. */
const beam = 48
/** Candidates tried for a role, by how near they are to the colour aimed at. */
const tried = 14

/**
 * Best first. Yields after each colour aimed at, with how much is done (0 to 1), so that it can be shown and left off.
 *
 * @throws RangeError when no role has a bead, or when the shelf cannot fill one of them, naming it
 */
export function* proposeColourways(question: ProposalQuestion, most = 8): Generator<number, Proposal[]> {
  const voices = voicesOf(question.roles)
  if (voices.length === 0)
    throw new RangeError('Give the letters of this colourway beads first; proposals follow their contrast.')
  const shelves = voices.map((voice) => shelfFor(voice, question))
  for (const [i, shelf] of shelves.entries()) {
    if (shelf.length === 0) {
      const names = voices[i]?.roles.map(({ role }) => role).join(', ')
      throw new RangeError(
        `Nothing on the shelf fills ${counted(question.kits, 'kit')} of ${names} in the same kind and size. Ask for fewer kits.`,
      )
    }
  }
  const aims = aimsOf(question.from, voices)
  const others = kitsOfWhatStays(question)
  const found = new Map<string, Found>()
  for (const [i, aim] of aims.entries()) {
    for (const each of search(aim, voices, shelves, question, others)) {
      const key = JSON.stringify(each.proposal.items)
      const known = found.get(key)
      if (!known || before(each, known) < 0) found.set(key, each)
    }
    yield (i + 1) / aims.length
  }
  return spreadOut([...found.values()].sort(before), question, most)
}

interface Found {
  readonly proposal: Proposal
  /** Among those of one aim: 0 is its best. */
  readonly rank: number
  readonly cost: number
}

/** The best of each aim before the second of any: what is shown first is to be unlike. */
const before = (a: Found, b: Found) => a.rank - b.rank || a.cost - b.cost

function voicesOf(roles: readonly RoleColour[]): Voice[] {
  const byItem = new Map<number, RoleColour[]>()
  for (const each of roles) byItem.set(each.itemId, [...(byItem.get(each.itemId) ?? []), each])
  return [...byItem.values()]
    .map((shared) => ({
      roles: shared,
      now: numbers(labOf((shared[0] as RoleColour).colour)),
      count: shared.reduce((sum, { count }) => sum + count, 0),
    }))
    .sort((a, b) => b.count - a.count)
}

/** What fits a voice, bead for bead, and fills the kits. */
function shelfFor(voice: Voice, { candidates, kit, report, kits }: ProposalQuestion): Choice[] {
  const roles = voice.roles.map(({ role }) => role)
  const there = report.beads.find(({ role }) => role === roles[0])?.bead
  if (!there) return []
  return candidates.flatMap((candidate): Choice[] => {
    const { bead } = candidate
    if (bead.kind !== there.kind || bead.size !== there.size || bead.bores !== there.bores) return []
    if (!within(bead.lengthMm, there.lengthMm) || !within(bead.acrossMm, there.acrossMm)) return []
    const { lines } = billOf(report, { ...kit, ...Object.fromEntries(roles.map((role) => [role, candidate.kit])) })
    const line = lines.find(({ itemId }) => itemId === candidate.id)
    const able = line && line.quantity > 0 ? Math.floor(candidate.free / line.quantity) : 0
    return able >= Math.max(1, kits) ? [{ candidate, lab: numbers(labOf(candidate.colour)), kits: able }] : []
  })
}

/** Kits that the stones, the thread and whatever else keeps its item allow. */
function kitsOfWhatStays({ report, kit, roles, free }: ProposalQuestion): number {
  const changed = new Set(roles.map(({ role }) => role))
  const staying = Object.fromEntries(Object.entries(kit).filter(([role]) => !changed.has(role)))
  return billOf(report, staying).lines.reduce(
    (least, { itemId, quantity }) =>
      quantity > 0 ? Math.min(least, Math.floor((free[itemId] ?? 0) / quantity)) : least,
    Number.POSITIVE_INFINITY,
  )
}

const within = (a: number, b: number) => Math.abs(a / b - 1) <= 0.02

/** For each voice, the colours any of which would do, and how much it matters to come near them. */
type Aim = readonly { readonly colours: readonly Lab[]; readonly weight: number }[]

function aimsOf(from: ColourSource, voices: readonly Voice[]): Aim[] {
  if (from.type === 'palette') {
    const colours = from.colours.map((colour) => numbers(labOf(colour)))
    return [voices.map(() => ({ colours, weight: 1 }))]
  }
  const turned = (chief: Voice, to: Lab, weight: number): Aim =>
    voices.map((voice) => ({ colours: [turn(voice.now, chief.now, to)], weight: voice === chief ? weight : 1 }))
  // A seed may become any of the voices, the chief one first.
  if (from.type === 'seed') {
    const seed = numbers(labOf(from.colour))
    return voices.slice(0, 4).map((chief) => turned(chief, seed, 4))
  }
  const [chief] = voices as [Voice, ...Voice[]]
  const [l, a, b] = chief.now
  const chroma = Math.max(20, Math.hypot(a, b))
  const begin = Math.atan2(b, a)
  const hues = Array.from({ length: 12 }, (_, i) => begin + (i * Math.PI) / 6)
  return hues
    .slice(1)
    .flatMap((hue) =>
      [l, 100 - l].map((light) => turned(chief, [light, chroma * Math.cos(hue), chroma * Math.sin(hue)], 1)),
    )
}

/** A colour moved as its chief moves: turned by as much in hue, as much stronger, and lighter by as much, within what a bead can be. */
function turn(colour: Lab, chief: Lab, to: Lab): Lab {
  const [before, after] = [Math.hypot(chief[1], chief[2]), Math.hypot(to[1], to[2])]
  const grey = before < 6 || after < 6
  const angle = grey ? 0 : Math.atan2(to[2], to[1]) - Math.atan2(chief[2], chief[1])
  const times = grey ? 1 : Math.min(1.6, Math.max(0.6, after / before))
  const [c, s] = [Math.cos(angle) * times, Math.sin(angle) * times]
  const steps = colour[0] - chief[0]
  // A step that would go past black or white goes as far the other way.
  const light = to[0] + steps > 97 || to[0] + steps < 8 ? to[0] - steps : to[0] + steps
  return [Math.min(97, Math.max(8, light)), colour[1] * c - colour[2] * s, colour[1] * s + colour[2] * c]
}

interface Partial {
  readonly chosen: readonly Choice[]
  readonly cost: number
}

function search(
  aim: Aim,
  voices: readonly Voice[],
  shelves: readonly (readonly Choice[])[],
  question: ProposalQuestion,
  others: number,
): Found[] {
  const total = voices.reduce((sum, { count }) => sum + count, 0)
  const originals = voices.map((one) => voices.map((other) => differenceOfLab(one.now, other.now)))
  const places = touchingVoices(voices, question.touching)
  let kept: Partial[] = [{ chosen: [], cost: 0 }]
  for (const [i, voice] of voices.entries()) {
    const near = nearest(shelves[i] as readonly Choice[], (aim[i] as Aim[number]).colours)
    const weight = (aim[i] as Aim[number]).weight * (0.4 + 0.6 * (voice.count / total))
    const next: Partial[] = []
    for (const { chosen, cost } of kept) {
      for (const { choice, away } of near) {
        if (chosen.some(({ candidate }) => candidate.id === choice.candidate.id)) continue
        let more = weight * away
        let confuses = false
        for (const [k, other] of chosen.entries()) {
          const apart = differenceOfLab(choice.lab, other.lab)
          const { touch, alike } = places(i, k)
          if (touch && alike && apart < apartFrom) confuses = true
          more += (touch ? 0.5 : 0.15) * Math.abs(apart - (originals[i]?.[k] as number))
        }
        if (!confuses) next.push({ chosen: [...chosen, choice], cost: cost + more })
      }
    }
    kept = next.sort((a, b) => a.cost - b.cost).slice(0, beam)
  }
  return kept
    .slice(0, 6)
    .map(({ chosen, cost }) => ({ proposal: proposalOf(chosen, voices, aim, originals, others), cost }))
    .filter(({ proposal }) => sound(proposal, question))
    .map((each, rank) => ({ ...each, rank }))
}

/** Whether two voices touch in the piece, and whether beads that touch are of one kind and size. */
function touchingVoices(voices: readonly Voice[], touching: readonly Touching[]) {
  const known = new Map<string, { touch: boolean; alike: boolean }>()
  return (i: number, k: number): { touch: boolean; alike: boolean } => {
    const key = `${i},${k}`
    const there = known.get(key)
    if (there) return there
    const pairs = (voices[i] as Voice).roles.flatMap((a) =>
      (voices[k] as Voice).roles
        .filter((b) => touching.some(({ roles }) => roles.includes(a.role) && roles.includes(b.role)))
        .map((b) => a.shape === b.shape),
    )
    const found = { touch: pairs.length > 0, alike: pairs.includes(true) }
    known.set(key, found)
    return found
  }
}

/** The nearest by the eye, found among the nearest by plain distance, which is quicker over thousands. */
function nearest(shelf: readonly Choice[], aims: readonly Lab[]): { choice: Choice; away: number }[] {
  return shelf
    .map((choice) => ({ choice, plain: Math.min(...aims.map((aim) => squared(aim, choice.lab))) }))
    .sort((a, b) => a.plain - b.plain || a.choice.candidate.id - b.choice.candidate.id)
    .slice(0, tried * 4)
    .map(({ choice }) => ({ choice, away: Math.min(...aims.map((aim) => differenceOfLab(aim, choice.lab))) }))
    .sort((a, b) => a.away - b.away || a.choice.candidate.id - b.choice.candidate.id)
    .slice(0, tried)
}

const squared = (a: Lab, b: Lab) => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2

function proposalOf(
  chosen: readonly Choice[],
  voices: readonly Voice[],
  aim: Aim,
  originals: readonly (readonly number[])[],
  others: number,
): Proposal {
  const items: Record<string, number> = {}
  for (const [i, { roles }] of voices.entries())
    for (const { role } of roles) items[role] = (chosen[i] as Choice).candidate.id
  const away = chosen.map(({ lab }, i) =>
    Math.min(...(aim[i] as Aim[number]).colours.map((each) => differenceOfLab(each, lab))),
  )
  const off = chosen.flatMap(({ lab }, i) =>
    chosen.slice(0, i).map((other, k) => Math.abs(differenceOfLab(lab, other.lab) - (originals[i]?.[k] as number))),
  )
  return { items, kits: Math.min(others, ...chosen.map(({ kits }) => kits)), away: mean(away), contrastsOff: mean(off) }
}

const mean = (values: readonly number[]) =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length

/** No neighbours that are taken for each other, no shades out of the order that their labels give, unless they are so already. */
function sound({ items }: Proposal, { roles, candidates, touching, thread }: ProposalQuestion): boolean {
  const byId = new Map(candidates.map((each) => [each.id, each]))
  const dressed = roles.map((each) => {
    const { colour, finish, id } = byId.get(items[each.role] as number) as Candidate
    return { ...each, colour, finish, itemId: id }
  })
  const [now, after] = [judge(roles, touching, thread), judge(dressed, touching, thread)]
  return (
    after.neighbours.every(({ alike, difference }) => !alike || difference >= apartFrom) &&
    after.ramps.every(({ runs }, i) => runs || !now.ramps[i]?.runs)
  )
}

/** The best, each of which looks unlike those before it, and unlike the original. */
function spreadOut(
  found: readonly { proposal: Proposal }[],
  { roles, candidates }: ProposalQuestion,
  most: number,
): Proposal[] {
  const byId = new Map(candidates.map((each) => [each.id, each.colour]))
  const total = roles.reduce((sum, { count }) => sum + count, 0)
  const original = Object.fromEntries(roles.map(({ role, colour }) => [role, colour]))
  const coloursOf = ({ items }: Proposal) =>
    Object.fromEntries(Object.entries(items).map(([role, id]) => [role, byId.get(id) as string]))
  const apart = (a: Readonly<Record<string, string>>, b: Readonly<Record<string, string>>) =>
    roles.reduce((sum, { role, count }) => sum + count * difference(a[role] as string, b[role] as string), 0) / total
  const kept: Proposal[] = []
  const shown = [original]
  for (const { proposal } of found) {
    const colours = coloursOf(proposal)
    if (shown.some((each) => apart(each, colours) < 6)) continue
    kept.push(proposal)
    shown.push(colours)
    if (kept.length === most) break
  }
  return kept
}

const numbers = ({ l, a, b }: Lab65): Lab => [l, a, b]
