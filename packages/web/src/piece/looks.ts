/** Which beads are picked out: by a line of the ledger, or by how far a walk has come. */
import type { Scene } from '@tessellum/core/drawing/scene'
import type { BeadLook } from './stage-kind'

export interface Looks {
  readonly looks: (bead: number) => BeadLook
  readonly passes: readonly [from: number, to: number] | undefined
}

/** What a line adds, every time it is done, and what it passes the first time; the rest quiet. Undefined for a line that does neither. */
export function looksOfLine(scene: Scene, statement: number): Looks | undefined {
  const from = scene.passes.findIndex((pass) => pass.statement === statement)
  if (from < 0) return undefined
  let to = from
  while (scene.passes[to]?.doing === scene.passes[from]?.doing) to++
  const passed = new Set(scene.passes.slice(from, to).map(({ bead }) => bead))
  return {
    looks: (bead) => (scene.beads[bead]?.statement === statement ? 'new' : passed.has(bead) ? 'passed' : 'quiet'),
    passes: [from, to],
  }
}

/** The piece when the thread has been laid up to `to`, with what was done since `from` picked out. */
export function looksAt(scene: Scene, from: number, to: number): Looks {
  const looks: BeadLook[] = scene.beads.map(() => 'hidden')
  for (let pass = 0; pass < to; pass++) {
    const { bead, fresh } = scene.passes[pass] as Scene['passes'][number]
    if (pass < from) looks[bead] = 'quiet'
    else if (fresh) looks[bead] = 'new'
    else if (looks[bead] !== 'new') looks[bead] = 'passed'
  }
  return { looks: (bead) => looks[bead] ?? 'hidden', passes: from < to ? [from, to] : undefined }
}
