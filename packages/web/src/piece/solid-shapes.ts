/** Bodies of beads and stones, in mm about their middles; a bead's hole along y. */
import { bodyOf, type FlatBody, type TurnedBody } from '@tessellum/core/drawing/body'
import type { SceneBead, SceneStone } from '@tessellum/core/drawing/scene'
import { outlineShare } from '@tessellum/core/form/solid'
import { BufferGeometry, ExtrudeGeometry, Float32BufferAttribute, LatheGeometry, Shape, Vector2 } from 'three'

/** Fewer corners where there are many beads. */
export interface Fineness {
  readonly round: number
  readonly along: number
}

export const finenessFor = (beads: number): Fineness =>
  beads <= 250 ? { round: 18, along: 10 } : beads <= 600 ? { round: 11, along: 6 } : { round: 8, along: 4 }

export function beadBody(bead: SceneBead, fineness: Fineness): BufferGeometry {
  const body = bodyOf(bead)
  if (body.type === 'flat') return flatBody(body)
  if (body.about === 'hole') return turnedBody(body, bead.boreMm, fineness)
  // Closed at both ends; from the hole toward the far end is x.
  const points = body.profile.map(([across, out]) => new Vector2(out, across))
  return new LatheGeometry([new Vector2(0, points[0]?.y), ...points], fineness.round).rotateZ(-Math.PI / 2)
}

/** The hole left open. */
function turnedBody({ profile, facets }: TurnedBody, boreMm: number, { round }: Fineness): BufferGeometry {
  const outer = profile.reduce((most, [, out]) => Math.max(most, out), 0)
  const hole = Math.min(boreMm / 2, outer * 0.7)
  const inner = (along: number) => new Vector2(hole, along * 0.8)
  const [first, last] = [profile[0], profile[profile.length - 1]] as [
    readonly [number, number],
    readonly [number, number],
  ]
  const points = [
    inner(first[0]),
    ...profile.map(([along, out]) => new Vector2(Math.max(hole, out), along)),
    inner(last[0]),
  ]
  if (facets === 0) return new LatheGeometry(points, round)
  // Cut, and not rounded over: every face has a light of its own.
  const cut = new LatheGeometry(points, facets).toNonIndexed()
  cut.computeVertexNormals()
  return cut
}

/** x toward the second hole, y along them. */
function flatBody({ outline, thick, sharp }: FlatBody): BufferGeometry {
  const bevel = sharp ? 0.05 * thick : 0.3 * thick
  // As much smaller as the bevel makes it larger again.
  const within = (k: 0 | 1) => {
    const places = outline.map((point) => point[k])
    const [low, high] = [Math.min(...places), Math.max(...places)]
    const middle = (low + high) / 2
    return (point: FlatBody['outline'][number]) => middle + (point[k] - middle) * (1 - (2 * bevel) / (high - low))
  }
  const [along, wide] = [within(0), within(1)]
  const shape = new Shape(outline.map((point) => new Vector2(wide(point), along(point))))
  const body = new ExtrudeGeometry(shape, {
    depth: thick - 2 * bevel,
    bevelThickness: bevel,
    bevelSize: bevel,
    bevelSegments: sharp ? 1 : 4,
    curveSegments: 1,
  })
  body.translate(0, 0, -thick / 2 + bevel)
  return body
}

/** A stone's outline shrunk toward both faces. */
export function stoneBody({ outline, frontMm, backMm, profile }: SceneStone): BufferGeometry {
  const positions: number[] = []
  const rows = 28
  for (let i = 0; i <= rows; i++) {
    const t = -Math.cos((Math.PI * i) / rows)
    const share = outlineShare(profile, t)
    for (let k = 0; k <= outline.length; k++) {
      const [x, y] = outline[outline.length - 1 - (k % outline.length)] as readonly [number, number]
      positions.push(x * share, y * share, t * (t >= 0 ? frontMm : backMm))
    }
  }
  return meshed(positions, rows, outline.length)
}

function meshed(positions: readonly number[], rows: number, columns: number): BufferGeometry {
  const index: number[] = []
  for (let i = 0; i < rows; i++) {
    for (let k = 0; k < columns; k++) {
      const a = i * (columns + 1) + k
      const b = a + columns + 1
      index.push(a, a + 1, b, b, a + 1, b + 1)
    }
  }
  const body = new BufferGeometry()
  body.setAttribute('position', new Float32BufferAttribute([...positions], 3))
  body.setIndex(index)
  body.computeVertexNormals()
  return body
}
