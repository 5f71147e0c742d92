/** How a kind of bead looks at the size of a swatch: from the same bodies that every drawing has, its hole to the right and a little toward the eye. */
import { nominalBead, nominalBeads, wholeOf } from '@tessellum/core/catalogue/nominal-beads'
import { bodyOf } from '@tessellum/core/drawing/body'
import { silhouetteOf } from '@tessellum/core/drawing/silhouette'

export interface BeadShape {
  /** Paths in a square box with its middle at 0, 0. */
  readonly outline: string
  readonly lines: string
  readonly mouths: readonly { readonly x: number; readonly y: number; readonly rx: number; readonly ry: number }[]
}

/** From the middle of the box to its edge, with room for the outline's line. */
const half = 12
const toward = 0.42

const known = new Map<string, BeadShape>()

/** @param kind one that nobody knows is drawn as a round bead */
export function beadShape(kind: string, size: string): BeadShape {
  const key = `${kind} ${size}`
  const before = known.get(key)
  if (before) return before
  const bead =
    nominalBead(kind, size) ??
    nominalBeads.find((each) => each.kind === kind) ??
    nominalBeads.find((each) => each.kind === 'round')
  if (!bead) throw new Error('The catalogue has no round bead.')
  const along = [Math.sqrt(1 - toward * toward), 0, toward] as const
  const { outline, lines, mouths } = silhouetteOf(bodyOf(wholeOf(bead)), bead.boreMm, along, [0, 1, 0])
  const [xs, ys] = [outline.map(([x]) => x), outline.map(([, y]) => y)]
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const [midX, midY] = [(left + right) / 2, (top + bottom) / 2]
  const scale = (2 * half) / Math.max(right - left, bottom - top)
  const at = (x: number, y: number) => [fixed((x - midX) * scale), fixed((y - midY) * scale)] as const
  const path = (points: readonly (readonly [number, number])[]) =>
    `M${points.map(([x, y]) => at(x, y).join(' ')).join('L')}`
  const shape = {
    outline: `${path(outline)}Z`,
    lines: lines.map(path).join(''),
    mouths: mouths.map(({ at: [mx, my], rx, ry }) => {
      const [x, y] = at(mx * 0.95, my * 0.95)
      return { x, y, rx: fixed(rx * scale), ry: fixed(ry * scale) }
    }),
  }
  known.set(key, shape)
  return shape
}

const fixed = (value: number) => Math.round(value * 100) / 100
