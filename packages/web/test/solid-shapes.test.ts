/** Bodies in the round: of the size that the catalogue says, closed but for their holes, facing outward. */
import { nominalBeads, wholeOf } from '@tessellum/core/catalogue/nominal-beads'
import { bodyOf } from '@tessellum/core/drawing/body'
import type { SceneBead, SceneStone } from '@tessellum/core/drawing/scene'
import { silhouetteOf } from '@tessellum/core/drawing/silhouette'
import type { BufferGeometry } from 'three'
import { beadBody, finenessFor, stoneBody } from '../src/piece/solid-shapes'
import { beadShape } from '../src/stock/bead-shape'

const kinds = [...new Map(nominalBeads.map((bead) => [bead.kind, bead])).values()]
const sceneBead = (bead: (typeof kinds)[number]): SceneBead => ({ role: 'A', statement: 0, ...wholeOf(bead) })

const extentOf = (body: BufferGeometry, k: 0 | 1 | 2) => {
  body.computeBoundingBox()
  const { min, max } = body.boundingBox ?? { min: { toArray: () => [] }, max: { toArray: () => [] } }
  return ((max.toArray() as number[])[k] ?? 0) - ((min.toArray() as number[])[k] ?? 0)
}

/** Six times the volume that the faces enclose, counted from the middle: what faces inward counts against it. */
function volumeOf(body: BufferGeometry): number {
  const at = body.getAttribute('position')
  const index = body.getIndex()
  const corners = index ? Array.from(index.array) : Array.from({ length: at.count }, (_, i) => i)
  let sum = 0
  for (let f = 0; f < corners.length; f += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => {
      const i = corners[f + k] as number
      return [at.getX(i), at.getY(i), at.getZ(i)]
    }) as [number[], number[], number[]]
    const [ax = 0, ay = 0, az = 0] = a
    const [bx = 0, by = 0, bz = 0] = b
    const [cx = 0, cy = 0, cz = 0] = c
    sum += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
  }
  return sum / 6
}

test.each(kinds.map((bead) => [`${bead.kind} ${bead.size}`, bead] as const))(
  '%s in the round is as large as its outline on paper',
  (_, bead) => {
    const scene = sceneBead(bead)
    const body = beadBody(scene, finenessFor(1))
    // Seen from the side, the hole to the right: along is x of the paper.
    const { outline } = silhouetteOf(bodyOf(scene), scene.boreMm, [1, 0, 0], [0, 1, 0])
    const reach = (k: 0 | 1) => Math.max(...outline.map((p) => p[k])) - Math.min(...outline.map((p) => p[k]))
    const wide = Math.max(extentOf(body, 0), extentOf(body, 2))
    expect(extentOf(body, 1)).toBeGreaterThan(0.9 * reach(0))
    expect(extentOf(body, 1)).toBeLessThan(1.03 * reach(0))
    expect(wide).toBeGreaterThan(0.9 * reach(1))
    expect(wide).toBeLessThan(1.06 * reach(1))
    // Outward, and no more than the box it lies in.
    const box = extentOf(body, 0) * extentOf(body, 1) * extentOf(body, 2)
    expect(volumeOf(body)).toBeGreaterThan(0.2 * box)
    expect(volumeOf(body)).toBeLessThan(box)
  },
)

test('where there are many beads each has fewer corners, and is as large', () => {
  for (const bead of kinds) {
    const [few, many] = [1, 5000].map((beads) => beadBody(sceneBead(bead), finenessFor(beads))) as [
      BufferGeometry,
      BufferGeometry,
    ]
    expect(many.getAttribute('position').count).toBeLessThanOrEqual(few.getAttribute('position').count)
    for (const k of [0, 1, 2] as const) expect(extentOf(many, k) / extentOf(few, k)).toBeGreaterThan(0.9)
  }
})

test.each(['flat', 'pointed', 'domed', 'bead'] as const)(
  'a %s stone is closed, and as high on each face as it says',
  (profile) => {
    const outline = Array.from({ length: 48 }, (_, k) => {
      // Clockwise from the top, as outlines of stones are.
      const angle = (2 * Math.PI * k) / 48
      return [7 * Math.sin(angle), 5 * Math.cos(angle)] as const
    })
    const stone: SceneStone = {
      letter: 'S',
      middle: [0, 0, 0],
      right: [1, 0, 0],
      front: [0, 0, 1],
      outline,
      frontMm: 3,
      backMm: 2,
      profile,
      statement: 0,
    }
    const body = stoneBody(stone)
    expect([extentOf(body, 0), extentOf(body, 1), extentOf(body, 2)].map((mm) => Math.round(mm * 100) / 100)).toEqual([
      14, 10, 5,
    ])
    // At least the two pyramids on its widest line.
    expect(volumeOf(body)).toBeGreaterThan(0.25 * 14 * 10 * 5)
    expect(volumeOf(body)).toBeLessThan(0.8 * 14 * 10 * 5)
  },
)

describe('as a swatch', () => {
  test.each(kinds.map((bead) => [bead.kind, bead.size] as const))(
    '%s %s fills its box and stays in it',
    (kind, size) => {
      const { outline, lines, mouths } = beadShape(kind, size)
      const figures = (path: string) => path.match(/-?\d+(\.\d+)?/g)?.map(Number) ?? []
      const all = figures(outline)
      expect(Math.max(...all.map(Math.abs))).toBeCloseTo(12, 1)
      for (const each of figures(lines)) expect(Math.abs(each)).toBeLessThanOrEqual(12.05)
      for (const { x, y, rx, ry } of mouths)
        expect(Math.max(Math.abs(x) + rx, Math.abs(y) + ry)).toBeLessThanOrEqual(12.5)
    },
  )

  test('no two kinds look the same, and one that nobody knows is a round bead', () => {
    const drawn = kinds.map(({ kind, size }) => JSON.stringify(beadShape(kind, size)))
    expect(new Set(drawn).size).toBe(kinds.length)
    expect(beadShape('no such kind', '')).toEqual(beadShape('round', ''))
  })
})
