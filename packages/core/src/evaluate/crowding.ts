import { needles, threadKinds } from '../catalogue/thread'
import { counted } from '../measure/counted'
import type { ThreadChoice } from '../notation/parse-thread'
import type { StatementReport } from '../report/report'
import type { StitchMachine } from '../stitch/stitch-machine'
import { type Crowding, maxPassesThrough } from '../thread/crowding'

interface Found {
  readonly crowding: readonly Crowding[]
  /** Roles of which some bead has more passes than it takes, with the ways out. */
  readonly tooFull: readonly (Crowding & { readonly message: string; readonly mend: string })[]
}

/** The fullest bead of each role, and the beads that the thread could not really have passed. */
export function crowdingOf(
  machine: StitchMachine,
  choice: ThreadChoice,
  statements: readonly StatementReport[],
): Found {
  const { work } = machine
  const passes = new Uint16Array(work.beads * 2)
  const worst = new Map<number, { passes: number; statement: number; overAt: number | undefined; most: number }>()
  for (let pass = 0; pass < work.passes; pass++) {
    const bore = work.holeAt(pass) >> 1
    const role = work.role(bore >> 1)
    const count = (passes[bore] as number) + 1
    passes[bore] = count
    let known = worst.get(role)
    if (!known) {
      known = { passes: 0, statement: 0, overAt: undefined, most: machine.roles.maxPassesOf(role) }
      worst.set(role, known)
    }
    if (count > known.most && known.overAt === undefined) known.overAt = work.statementAt(pass)
    if (count > known.passes) {
      known.passes = count
      known.statement = work.statementAt(pass)
    }
  }
  const lineOf = (statement: number) => statements[statement]?.line ?? 1
  const crowding: Crowding[] = []
  const tooFull: Found['tooFull'][number][] = []
  for (const [role, { passes, statement, overAt, most }] of worst) {
    const one = { role: machine.roles.letterOf(role), passes, room: most - passes, line: lineOf(overAt ?? statement) }
    crowding.push(one)
    if (overAt === undefined || most === 0) continue
    tooFull.push({
      ...one,
      message: `A bead of ${one.role} would take ${passes} passes here, and its hole lets ${most} through with ${choice.thread.kind} ${choice.thread.size} and needle ${choice.needle}.`,
      mend: waysOut(machine.roles.boreOf(role), choice, passes),
    })
  }
  return { crowding, tooFull }
}

/** What a finer needle, a finer thread or fewer passes would do. */
function waysOut(boreMm: number, choice: ThreadChoice, passes: number): string {
  const ways: string[] = []
  for (const [number, needleMm] of Object.entries(needles)) {
    if (needleMm >= choice.needleMm) continue
    const most = maxPassesThrough(boreMm, choice.thread.acrossMm, needleMm, choice.strands)
    if (most >= passes) {
      ways.push(`needle ${number} lets ${most} through`)
      break
    }
  }
  const finer = threadKinds
    .filter((thread) => thread.kind === choice.thread.kind && thread.acrossMm < choice.thread.acrossMm)
    .map((thread) => ({ thread, most: maxPassesThrough(boreMm, thread.acrossMm, choice.needleMm, choice.strands) }))
    .find(({ most }) => most >= passes)
  if (finer) ways.push(`${finer.thread.kind} ${finer.thread.size} lets ${finer.most} through`)
  if (choice.strands === 2) ways.push('a single thread takes half the room')
  const over = passes - maxPassesThrough(boreMm, choice.thread.acrossMm, choice.needleMm, choice.strands)
  ways.push(`${counted(over, 'pass', 'passes')} fewer would do, by reinforcing less or going another way`)
  const told = ways.join('; ')
  return `${told.charAt(0).toUpperCase()}${told.slice(1)}.`
}
