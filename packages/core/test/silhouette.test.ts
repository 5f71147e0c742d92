import { nominalBead, beadKinds as nominalKinds, nominalSizes } from '../src/catalogue/nominal-beads'
import { bodyOf } from '../src/drawing/body'
import { silhouetteOf } from '../src/drawing/silhouette'

const bodies = nominalKinds.map((kind) => {
  const bead = nominalBead(kind, nominalSizes(kind)[0] as string)
  if (!bead) throw new Error(kind)
  const wideMm = bead.wideMm ?? bead.acrossMm
  return { kind, bead, body: bodyOf({ ...bead, wideMm, boreGapMm: bead.boreGapMm }) }
})

test('no two kinds of one colour and size are drawn alike: outline or lines tell them apart', () => {
  const drawn = nominalKinds.map((kind) => {
    const twin = kind.startsWith('twin')
    const body = bodyOf({
      kind,
      lengthMm: 4,
      acrossMm: twin ? 2 : 4,
      wideMm: 4,
      boreMm: 1,
      boreGapMm: twin ? 2 : undefined,
      contact: nominalBead(kind, nominalSizes(kind)[0] as string)?.contact ?? 2,
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
        expect(reach).toBeLessThanOrEqual(
          Math.hypot(bead.lengthMm, bead.wideMm ?? bead.acrossMm, bead.acrossMm) / 2 + 1e-6,
        )
      }
    const side = silhouetteOf(body, bead.boreMm, [1, 0, 0], [0, 1, 0]).outline
    expect(2 * Math.max(...side.map(([x]) => x))).toBeCloseTo(bead.lengthMm, 3)
  },
)

/** How far a point lies outside a convex outline that is walked one way round. */
function outside([x, y]: readonly [number, number], outline: readonly (readonly [number, number])[]): number {
  return Math.max(
    ...outline.map(([ax, ay], i) => {
      const [bx, by] = outline[(i + 1) % outline.length] as readonly [number, number]
      return ((by - ay) * (x - ax) - (bx - ax) * (y - ay)) / Math.max(1e-9, Math.hypot(bx - ax, by - ay))
    }),
  )
}
