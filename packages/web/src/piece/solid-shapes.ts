/** Bodies of beads and stones, in mm about their middles; a bead's hole along y. */
import type { SceneBead, SceneStone } from '@tessellum/core/drawing/scene'
import { outlineShare } from '@tessellum/core/form/solid'
import { BufferGeometry, Float32BufferAttribute, LatheGeometry, Vector2 } from 'three'

/** Fewer corners where there are many beads. */
export interface Fineness {
  readonly round: number
  readonly along: number
}

export const finenessFor = (beads: number): Fineness =>
  beads <= 250 ? { round: 18, along: 10 } : beads <= 600 ? { round: 11, along: 6 } : { round: 8, along: 4 }

export function beadBody(bead: SceneBead, { round, along }: Fineness): BufferGeometry {
  return bead.wideMm === bead.acrossMm ? turnedBody(bead, round, along) : flatBody(bead, round, along)
}

/** A superellipse turned about the hole, the hole left open. */
function turnedBody({ lengthMm, acrossMm, boreMm, contact }: SceneBead, round: number, along: number): BufferGeometry {
  const [half, radius, hole] = [lengthMm / 2, acrossMm / 2, Math.min(boreMm / 2, acrossMm * 0.35)]
  const points: Vector2[] = [new Vector2(hole, -half * 0.8)]
  for (let i = 0; i <= along; i++) {
    // Even steps of the angle of a circle, bent to the superellipse.
    const angle = -Math.PI / 2 + (Math.PI * i) / along
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    const x = radius * Math.abs(c) ** (2 / contact)
    const y = half * Math.sign(s) * Math.abs(s) ** (2 / contact)
    if (x > hole) points.push(new Vector2(x, y))
    else points.push(new Vector2(hole, half * Math.sign(s) * (1 - (hole / radius) ** contact) ** (1 / contact)))
  }
  points.push(new Vector2(hole, half * 0.8))
  return new LatheGeometry(points, contact < 1.6 ? Math.min(round, 8) : round)
}

/** A bead with two bores: x toward the second, y along the holes. */
function flatBody({ lengthMm, wideMm, acrossMm, contact }: SceneBead, round: number, along: number): BufferGeometry {
  const power = (v: number) => Math.sign(v) * Math.abs(v) ** (2 / contact)
  const positions: number[] = []
  const rows = along * 2
  for (let i = 0; i <= rows; i++) {
    const up = -Math.PI / 2 + (Math.PI * i) / rows
    for (let k = 0; k <= round; k++) {
      const turn = (2 * Math.PI * k) / round
      positions.push(
        (wideMm / 2) * power(Math.cos(up)) * power(Math.cos(turn)),
        (lengthMm / 2) * power(Math.sin(up)),
        (acrossMm / 2) * power(Math.cos(up)) * power(-Math.sin(turn)),
      )
    }
  }
  return meshed(positions, rows, round)
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
