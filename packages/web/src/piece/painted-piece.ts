/** What painting needs of a scene, small enough to be sent to a worker with every change of the text. */
import type { Scene, SceneBead } from '@tessellum/core/drawing/scene'
import type { BeadLook } from './stage-kind'

export interface PaintedPiece extends Pick<Scene, 'stones' | 'rings'> {
  /** One bead of each role. */
  readonly sorts: readonly SceneBead[]
  /** By bead. */
  readonly sortOf: Uint16Array
  /** Three numbers for each stretch of thread between two beads: the pass before it, and the two beads. */
  readonly stretches: Int32Array
  /** By pass: 1 where a thread begins. */
  readonly begins: Uint8Array
}

export function paintedPiece({ beads, passes, stones, rings }: Scene): PaintedPiece {
  const sorts: SceneBead[] = []
  const sortOfRole = new Map<string, number>()
  const sortOf = Uint16Array.from(beads, (bead) => {
    const known = sortOfRole.get(bead.role)
    if (known !== undefined) return known
    sortOfRole.set(bead.role, sorts.length)
    return sorts.push(bead) - 1
  })
  const begins = Uint8Array.from(passes, (pass) => Number(pass.begins))
  return { sorts, sortOf, stretches: stretchesOf(passes), begins, stones, rings }
}

/** Each stretch of thread between two beads once. */
function stretchesOf(passes: Scene['passes']): Int32Array {
  const seen = new Set<number>()
  const found: number[] = []
  for (let pass = 0; pass + 1 < passes.length; pass++) {
    const [a, b] = [passes[pass]?.bead ?? 0, passes[pass + 1]?.bead ?? 0]
    const key = Math.min(a, b) * 1_000_003 + Math.max(a, b)
    if (passes[pass + 1]?.begins || a === b || seen.has(key)) continue
    seen.add(key)
    found.push(pass, a, b)
  }
  return Int32Array.from(found)
}

const looks: readonly BeadLook[] = ['plain', 'quiet', 'new', 'passed', 'hidden']

/** A look as a number. */
export const lookCode: Readonly<Record<BeadLook, number>> = Object.fromEntries(
  looks.map((look, code) => [look, code]),
) as Record<BeadLook, number>

/** @param codes by bead; a bead that it does not go up to is plain */
export const lookOf = (codes: Uint8Array, bead: number): BeadLook => looks[codes[bead] ?? 0] ?? 'plain'
