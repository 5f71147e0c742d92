import type { Bead } from '../src/catalogue/bead'
import { nominalBead, nominalBeads, beadKinds as nominalKinds, nominalSizes } from '../src/catalogue/nominal-beads'
import { type Outline, outlineOf } from '../src/catalogue/outline'
import { bodyOf } from '../src/drawing/body'
import { silhouetteOf } from '../src/drawing/silhouette'

const bodies = nominalKinds.map((kind) => {
  const bead = nominalBead(kind, nominalSizes(kind)[0] as string)
  if (!bead) throw new Error(kind)
  return { kind, bead, body: bodyOf(bead) }
})

test('no two kinds of one colour and size are drawn alike: outline or lines tell them apart', () => {
  const drawn = nominalKinds.map((kind) => {
    const like = nominalBead(kind, nominalSizes(kind)[0] as string) as Bead
    const measures = { lengthMm: 4, acrossMm: like.wideMm ? 2 : 4, boreMm: 1 }
    const body = bodyOf({
      ...like,
      ...measures,
      ...(like.wideMm ? { wideMm: 4 } : {}),
      ...(like.boreGapMm ? { boreGapMm: 2 } : {}),
    })
    const { outline, lines } = silhouetteOf(body, 1, [1, 0, 0], [0, 1, 0])
    return JSON.stringify([outline.map((point) => point.map((each) => each.toFixed(2))), lines.length])
  })
  // A tile and a half tile, a bugle and a longer cylinder differ in measure only.
  expect(new Set(drawn).size).toBeGreaterThanOrEqual(nominalKinds.length - 1)
})

test.each(bodies.map(({ kind, bead, body }) => [kind, bead, body] as const))(
  'a %s seen from any side keeps its measures: nothing of it lies outside its outline',
  (_, bead, body) => {
    for (let turn = 0; turn < 2 * Math.PI; turn += 0.37)
      for (let tilt = -1.4; tilt < 1.5; tilt += 0.35) {
        const along = [Math.cos(tilt) * Math.cos(turn), Math.cos(tilt) * Math.sin(turn), Math.sin(tilt)] as const
        const wide = [-Math.sin(turn), Math.cos(turn), 0] as const
        const { outline, lines } = silhouetteOf(body, bead.boreMm, along, wide)
        for (const line of lines) expect(Math.max(...line.map((point) => outside(point, outline)))).toBeLessThan(0.05)
        // It never reaches farther than the corners of the box it fits in.
        const reach = Math.max(...outline.map(([x, y]) => Math.hypot(x, y)))
        expect(reach).toBeLessThanOrEqual(Math.hypot(...halfBox(bead)) + 1e-6)
      }
    const side = silhouetteOf(body, bead.boreMm, [1, 0, 0], [0, 1, 0]).outline
    const [ahead, behind] = [Math.max(...side.map(([x]) => x)), -Math.min(...side.map(([x]) => x))]
    expect(Math.max(ahead, behind)).toBeCloseTo(halfBox(bead)[0], 1)
  },
)

/** Half of the box about its middle that a bead fits in: along the hole, across it the wide way, and through. */
function halfBox(bead: Bead): [number, number, number] {
  const stations = outlineOf(bead)?.stations ?? []
  const along = stations.flatMap(([, from, to]) => [Math.abs(from), Math.abs(to)])
  return [Math.max(bead.lengthMm / 2, ...along), (bead.wideMm ?? bead.acrossMm) / 2, bead.acrossMm / 2]
}

test.each(nominalBeads.flatMap((bead) => (outlineOf(bead) ? [[bead.kind, bead.size, bead] as const] : [])))(
  'a %s %s is as long as its record says where its holes are',
  (_, __, bead) => {
    const { stations } = outlineOf(bead) as Outline
    for (const hole of bead.boreGapMm ? [-bead.boreGapMm / 2, bead.boreGapMm / 2] : [-(bead.offMm as number)]) {
      const next = stations.findIndex(([wide]) => wide >= hole)
      const [a, b] = [stations[next - 1], stations[next]] as [Outline['stations'][number], Outline['stations'][number]]
      const t = (hole - a[0]) / (b[0] - a[0])
      const [from, to] = [a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])]
      expect(to - from).toBeCloseTo(bead.lengthMm, 0.9)
      expect(Math.abs(from + to)).toBeLessThan(0.12)
    }
  },
)

/** How far a point lies outside an outline: past its edges along the ray from the middle, which sees all of it. */
function outside([x, y]: readonly [number, number], outline: readonly (readonly [number, number])[]): number {
  const reach = Math.max(
    0,
    ...outline.map(([ax, ay], i) => {
      const [bx, by] = outline[(i + 1) % outline.length] as readonly [number, number]
      const across = x * (by - ay) - y * (bx - ax)
      const share = (ax * y - ay * x) / across
      return share >= -1e-6 && share <= 1 + 1e-6 ? (ax * (by - ay) - ay * (bx - ax)) / across : 0
    }),
  )
  return Math.hypot(x, y) * (1 - reach)
}
