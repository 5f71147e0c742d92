/** A walk through a piece: what is done, one thing after the other, as a teacher shows it. */
import type { StatementReport } from '../report/report'
import type { Scene } from './scene'

export interface WalkStep {
  readonly statement: number
  /** Passes from..to; none for a step that is only said. */
  readonly from: number
  readonly to: number
  /** The how-manieth time this line is done, from 1, and how often in all. */
  readonly time: number
  readonly times: number
}

/**
 * Every doing of every line in the order of the thread; lines that do nothing to the thread but are told (a stone laid in, a checkpoint)
 * come between, where they are written.
 *
 * @param told whether a line is told to the stitcher at all
 */
export function walkOf(
  passes: Scene['passes'],
  statements: readonly StatementReport[],
  told: (statement: StatementReport) => boolean,
): WalkStep[] {
  const spans: { statement: number; from: number; to: number }[] = []
  for (let pass = 0; pass < passes.length; ) {
    const { statement, doing } = passes[pass] as Scene['passes'][number]
    const from = pass
    while (passes[pass]?.doing === doing) pass++
    spans.push({ statement, from, to: pass })
  }
  const laying = new Set(spans.map((span) => span.statement))
  const done = new Set<number>()
  const steps: { statement: number; from: number; to: number }[] = []
  let last = -1
  let at = 0
  const sayUpTo = (before: number) => {
    for (let statement = last + 1; statement < before; statement++) {
      const line = statements[statement]
      if (!line || laying.has(statement) || done.has(statement) || line.action.type === 'repeat' || !told(line))
        continue
      done.add(statement)
      steps.push({ statement, from: at, to: at })
    }
  }
  for (const span of spans) {
    sayUpTo(span.statement)
    steps.push(span)
    last = span.statement
    at = span.to
  }
  sayUpTo(statements.length)
  const times = new Map<number, number>()
  for (const { statement } of steps) times.set(statement, (times.get(statement) ?? 0) + 1)
  const seen = new Map<number, number>()
  return steps.map((step) => {
    const time = (seen.get(step.statement) ?? 0) + 1
    seen.set(step.statement, time)
    return { ...step, time, times: times.get(step.statement) ?? 1 }
  })
}

/** Beads of each role picked up in passes from..to, and how many beads are only passed. */
export function pickedIn(scene: Pick<Scene, 'passes' | 'beads'>, from: number, to: number) {
  const picked: Record<string, number> = {}
  let passed = 0
  for (let pass = from; pass < to; pass++) {
    const { bead, fresh } = scene.passes[pass] as Scene['passes'][number]
    const role = scene.beads[bead]?.role
    if (fresh && role !== undefined) picked[role] = (picked[role] ?? 0) + 1
    else passed++
  }
  return { picked, passed }
}
