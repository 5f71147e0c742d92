/**
 * Stitching by hand on the work that a text makes: what has been done so far as lines of the text, and what is probably being done. All of it
 * is plain data, so that it can be worked out in a worker and shown in a page.
 */
import { type Choices, evaluatePattern } from '../evaluate/evaluate-pattern'
import type { Mm } from '../measure/units'
import type { Line } from '../notation/line'
import { type Parsed, parsePattern } from '../notation/parse'
import { isBlockWord, isDeclarationWord } from '../notation/words'
import { beadOf, type Hole, hole } from '../stitch/hole'
import { runsOf } from '../stitch/runs'
import type { StitchMachine } from '../stitch/stitch-machine'
import { wayTo } from '../stitch/travel'
import type { Work } from '../stitch/work'
import { takenOut, withLines } from './edit-text'
import { beginsWith, type HandPass, holesPassed, passesOf, samePass } from './hand-pass'
import { type Recognised, recognise } from './recognise'
import { type NoWork, SoFar, type Tried } from './so-far'
import { spell } from './spell'

export interface Proposal {
  /** What would be written, a line or a repeat of several. */
  readonly lines: readonly string[]
  /** The whole text then. */
  readonly text: string
  /** What the hand has made already and what would be added to it. */
  readonly passes: readonly HandPass[]
  /** Passes beyond those made by hand. */
  readonly more: number
  /** Beads that it would pick up beyond those, by letter. */
  readonly adds: Readonly<Record<string, number>>
  /** The line before would step up to another bead. */
  readonly restepped: boolean
  readonly remarks: readonly string[]
}

/** A hole that takes no more thread than it has. */
export interface Crowded {
  readonly letter: string
  readonly passes: number
  readonly most: number
}

export interface HandState {
  /** Beads that the text makes without the hand. */
  readonly beads: number
  /** What of the text's own passes is not drawn yet. */
  readonly undrawn: readonly HandPass[]
  /** What is drawn is of another text: its beads are not the beads of this one. */
  readonly drawnOtherwise: boolean
  /** Where the needle has come out; undefined before anything is on it. */
  readonly needle: Hole | undefined
  /** What the hand has done, in lines that do just that; undefined where it cannot be said. */
  readonly lines: readonly string[] | undefined
  readonly text: string
  /** The same when the hand is done with it: in as few words as say it, and stepping up where a round is complete. */
  readonly ended: { readonly lines: readonly string[]; readonly text: string } | undefined
  readonly proposals: readonly Proposal[]
  /** Holes that the hand has passed more often than they take. */
  readonly crowded: readonly Crowded[]
  /** Those that no more thread goes through, with which they are told: by bead and bore. */
  readonly full: Readonly<Record<`${number}:${0 | 1}`, Crowded>>
}

/** The way along the thread to a bead that lies farther off. */
export interface WayThere {
  readonly passes: readonly HandPass[]
  readonly threadMm: Mm
  /** The fullest of the holes on the way, when it has been gone. */
  readonly fullest: Crowded | undefined
}

const maxProposals = 7

export class Stitching {
  private constructor(
    private readonly parsed: Parsed,
    private readonly choices: Choices,
    private readonly soFar: SoFar,
  ) {}

  static begin(source: string, choices: Choices): Stitching | NoWork {
    const parsed = parsePattern(source)
    const soFar = SoFar.of(parsed, choices)
    return soFar instanceof SoFar ? new Stitching(parsed, choices, soFar) : soFar
  }

  /** @param drawn the holes of the passes that are drawn, in order; all of the text's unless they are given */
  state(passes: readonly HandPass[], drawn?: Int32Array): HandState {
    const { source } = this.parsed
    const { work, roles } = this.soFar.machine
    const beads = work.beads
    const alike = drawn ? sameAsDrawn(work, drawn) : work.passes
    const undrawn = passesOf(work, alike, work.passes, roles.letterOf)
    // Where a line has only stepped up to another bead, every bead is still the one that is drawn.
    const drawnOtherwise =
      drawn !== undefined && alike < drawn.length && beadsIn(drawn) > beadsIn(drawn.subarray(0, alike))
    if (passes.length === 0)
      return {
        beads,
        undrawn,
        drawnOtherwise,
        needle: work.needle,
        lines: [],
        text: source,
        ended: undefined,
        proposals: this.onceMore(),
        crowded: [],
        full: fullIn(this.soFar.machine),
      }
    const spelled = spell(this.soFar, passes)
    const found = recognise(this.soFar, passes)
    const done = found.find((each) => each.done && !each.restepped)
    const after = spelled?.at(-1)?.machine ?? this.soFar.machine
    const lines = spelled?.map(({ line }) => line)
    const shorter =
      done && (!spelled || spelled.length > 1 || done.tokens <= (spelled[0]?.tokens ?? 0)) ? done : undefined
    const ended = shorter ? [shorter.line] : lines
    return {
      beads,
      undrawn,
      drawnOtherwise,
      needle: holesPassed(passes, beads).at(-1),
      lines,
      text: lines ? withLines(source, lines) : source,
      ended: ended && { lines: ended, text: withLines(source, ended) },
      proposals: this.proposed(
        found.filter(({ more }) => more > 0),
        passes,
      ),
      crowded: crowdedBy(passes, after),
      full: fullIn(after),
    }
  }

  /** The way along the thread from where the hand has come to a bead. */
  way(passes: readonly HandPass[], bead: number): WayThere | undefined {
    const machine = this.machineAfter(passes)
    const needle = machine?.work.needle
    if (!machine || needle === undefined || bead >= machine.work.beads) return undefined
    const way = wayTo(machine, needle, { from: 0, to: 1 }, (h) => beadOf(h) === bead)
    if (!way) return undefined
    const threadMm = way.reduce((sum, h) => sum + machine.walkCost(h), 0)
    const fill = way.map((h) => ({
      letter: machine.letterOfBead(beadOf(h)),
      passes: machine.work.passesThrough(h) + 1,
      most: machine.roles.maxPassesOf(machine.work.role(beadOf(h))),
    }))
    const fullest = fill.reduce<Crowded | undefined>(
      (worst, each) => (!worst || each.most - each.passes < worst.most - worst.passes ? each : worst),
      undefined,
    )
    return { passes: way.map((h) => ({ type: 'pass', hole: h })), threadMm, fullest }
  }

  private machineAfter(passes: readonly HandPass[]) {
    if (passes.length === 0) return this.soFar.machine.copy()
    return spell(this.soFar, passes)?.at(-1)?.machine
  }

  /** Each different thing once, the shortest line that says it. */
  private proposed(found: readonly Recognised[], passes: readonly HandPass[]): Proposal[] {
    const told: Recognised[] = []
    for (const each of found) {
      const same = told.some(
        (other) =>
          other.passes.length === each.passes.length && other.passes.every((pass, i) => samePass(pass, each.passes[i])),
      )
      if (!same) told.push(each)
      if (told.length === maxProposals) break
    }
    return told.map((tried) =>
      this.asProposal(tried, [tried.line], withLines(this.parsed.source, [tried.line]), passes),
    )
  }

  private asProposal(
    { passes, restepped, remarks }: Pick<Tried, 'passes' | 'restepped' | 'remarks'>,
    lines: readonly string[],
    text: string,
    made: readonly HandPass[],
  ): Proposal {
    const rest = passes.slice(made.length)
    const picked = rest.flatMap((pass) => (pass.type === 'pick' ? [pass.role] : [])).sort()
    return {
      lines,
      text,
      passes,
      more: rest.length,
      adds: Object.fromEntries(runsOf(picked).map(({ role, count }) => [role, count])),
      restepped,
      remarks,
    }
  }

  /** With nothing in hand: the last line again, again and a bead longer, at each such bead; the other edge; the stone. */
  private onceMore(): Proposal[] {
    const { machine } = this.soFar
    const { source, lines } = this.parsed
    const last = lines.at(-1)
    if (!last || isDeclarationWord(last.keyword)) return []
    const again = withoutName(last)
    const stones = [...machine.roles.byLetter.values()].flatMap((role) =>
      role.type === 'stone' && !machine.placed.has(role.letter) && machine.edges.ring ? [`place ${role.letter}`] : [],
    )
    const { rail } = machine.edges
    const first = rail?.fresh ? machine.letterOfBead(beadOf(rail.groups[0]?.holes[0] ?? 0)) : undefined
    const texts = onceOnly.includes(last.keyword) ? [] : [again, ...oneLonger(this.parsed, again)]
    const begun = first === undefined ? [] : [`${rail?.closed ? 'round' : 'row'} ${first}`]
    const singles = [...begun, ...texts, 'other edge', ...stones, 'finish'].flatMap((line) => {
      const tried = this.soFar.try(line)
      if (!tried || (tried.passes.length === 0 && !/^(place|finish)/.test(line))) return []
      return [this.asProposal(tried, [line], withLines(source, [line]), [])]
    })
    return [...singles.slice(0, 2), ...this.atEach(last), ...singles.slice(2)].slice(0, maxProposals)
  }

  /** The last line at each bead like that at which it was worked, in place of the line itself. */
  private atEach(last: Line): Proposal[] {
    if (!['loop', 'pick', 'fringe'].includes(last.keyword)) return []
    const { source } = this.parsed
    const without = takenOut(source, last.number)
    const before = SoFar.of(without, this.choices)
    if (!(before instanceof SoFar)) return []
    const { machine } = before
    const { needle } = machine.work
    if (needle === undefined) return []
    const letter = machine.letterOfBead(beadOf(needle))
    const { work } = this.soFar.machine
    const made = passesOf(work, machine.work.passes, work.passes, machine.roles.letterOf)
    const places = machine
      .markNames()
      .filter((name) => machine.marked(name)?.some((h) => beadOf(h) === beadOf(needle)))
      .flatMap((name) => [`${letter} in ${name}`, name])
    for (const place of [...places, letter]) {
      const block = [`at each ${place}`, last.text, 'end']
      const text = withLines(without, [block[0] as string, `  ${last.text}`, 'end'])
      const { report, work: then } = evaluatePattern(text, this.choices)
      if (report.diagnostics.some(({ severity }) => severity === 'error')) continue
      const passes = passesOf(then, machine.work.passes, then.passes, machine.roles.letterOf)
      if (passes.length > made.length && beginsWith(passes, made))
        return [{ ...this.asProposal({ passes, restepped: false, remarks: [] }, block, text, made) }]
    }
    return []
  }
}

/** Holes that the hand has passed more often than they take. */
function crowdedBy(passes: readonly HandPass[], { work, roles }: StitchMachine): Crowded[] {
  const seen = new Set<number>()
  return passes.flatMap((pass) => {
    if (pass.type === 'pick' || seen.has(pass.hole >> 1)) return []
    seen.add(pass.hole >> 1)
    const role = work.role(beadOf(pass.hole))
    const [through, most] = [work.passesThrough(pass.hole), roles.maxPassesOf(role)]
    return through > most ? [{ letter: roles.letterOf(role), passes: through, most }] : []
  })
}

/** How many of the first passes of a work are those that are drawn. */
export function sameAsDrawn(work: Work, drawn: Int32Array): number {
  const most = Math.min(work.passes, drawn.length)
  let alike = 0
  while (alike < most && work.holeAt(alike) === drawn[alike]) alike++
  return alike
}

const beadsIn = (drawn: Int32Array): number => drawn.reduce((most, h) => Math.max(most, beadOf(h) + 1), 0)

function fullIn(machine: StitchMachine): HandState['full'] {
  const { work, roles } = machine
  const full: Record<`${number}:${0 | 1}`, Crowded> = {}
  for (let bead = 0; bead < work.beads; bead++)
    for (const bore of [0, 1] as const) {
      const h = hole(bead, bore)
      if (!machine.isFull(h)) continue
      const role = work.role(bead)
      full[`${bead}:${bore}`] = {
        letter: roles.letterOf(role),
        passes: work.passesThrough(h),
        most: roles.maxPassesOf(role),
      }
    }
  return full
}

/** Nobody does these twice in a row. */
const onceOnly = ['ring', 'string', 'let', 'other', 'end', 'place', 'rail', 'to']

/** A name belongs to what bore it first. */
const withoutName = ({ text }: Line): string => text.replace(/ as [a-z]\w*(, all)?/, '')

/** A bead more than the last line, where that had one more than the line before it. */
function oneLonger({ lines }: Parsed, last: string): string[] {
  const before = lines.at(-2)
  if (!before || isBlockWord(before.keyword)) return []
  const [now, then] = [last.split(/(\d+)/), withoutName(before).split(/(\d+)/)]
  const grown = now.findIndex((part, i) => part !== then[i])
  if (grown < 0 || now.length !== then.length) return []
  const same = now.every((part, i) => i === grown || part === then[i])
  const step = Number(now[grown]) - Number(then[grown])
  if (!same || !Number.isInteger(step) || step === 0 || Number(now[grown]) + step < 1) return []
  return [now.map((part, i) => (i === grown ? String(Number(part) + step) : part)).join('')]
}
