import { outlineShare } from '../form/solid'
import { cross } from '../form/vector'
import { hull } from '../measure/hull'
import type { Mm } from '../measure/units'
import type { SceneStone } from './scene'

type Point = readonly [x: Mm, y: Mm]

/** From its back to its front. */
const levels = Array.from({ length: 17 }, (_, i) => (i - 8) / 8)
const facets = 12

/**
 * A stone as it lies: its outline, and the edge of its dome or its facets where a face of it is turned to the eye.
 *
 * @param seen a place in the piece, on the page
 * @param facing how far its front is turned to the eye, -1 to 1
 */
export function stoneSilhouette(
  { middle, right, front, outline, profile, frontMm, backMm }: SceneStone,
  seen: (at: readonly Mm[]) => Point,
  facing: number,
): { readonly outline: readonly Point[]; readonly lines: readonly (readonly Point[])[] } {
  const up = cross(front, right)
  const at = (x: Mm, y: Mm, z: Mm): Point =>
    seen(([0, 1, 2] as const).map((c) => middle[c] + x * right[c] + y * up[c] + z * front[c]))
  const level = (t: number): Point[] => {
    const share = outlineShare(profile, t)
    return outline.map(([x, y]) => at(x * share, y * share, t * (t >= 0 ? frontMm : backMm)))
  }
  const lines: (readonly Point[])[] = []
  if (Math.abs(facing) > 0.2 && profile !== 'flat') {
    const inner = level(Math.sign(facing) * (profile === 'pointed' ? 0.92 : 0.8))
    lines.push([...inner, inner[0] as Point])
    if (profile === 'pointed') {
      const rim = level(0)
      for (let k = 0; k < facets; k++) {
        const place = Math.floor((k * outline.length) / facets)
        lines.push([inner[place] as Point, rim[place] as Point])
      }
    }
  }
  return { outline: hull(levels.flatMap(level)), lines }
}
