import type { Scene } from '@tessellum/core/drawing/scene'
import fc from 'fast-check'
import { Camera } from '../src/piece/camera'

const bead = { lengthMm: 1.3, acrossMm: 1.6 }
/** Beads with their middles here, and nothing else. */
const sceneOf = (middles: readonly (readonly number[])[]): Scene =>
  ({
    beads: middles.map(() => bead),
    poses: Float32Array.from(middles.flatMap((middle) => [...middle, 1, 0, 0, 0, 1, 0])),
    stones: [],
    rings: [],
  }) as unknown as Scene

const mm = fc.integer({ min: -40, max: 40 })
const middles = fc.array(fc.tuple(mm, mm, mm), { minLength: 1, maxLength: 12 })
const angle = fc.double({ min: -6, max: 6, noNaN: true })
const plate = fc.tuple(fc.integer({ min: 100, max: 1600 }), fc.integer({ min: 100, max: 1600 }))

test('from each side the whole piece is in the plate, and fills it one way or the other', () => {
  fc.assert(
    fc.property(middles, plate, fc.constantFrom('front', 'back', 'side'), (places, [width, height], face) => {
      const camera = new Camera()
      camera.resize(width, height)
      camera.face(face)
      camera.measure(sceneOf(places))
      const { scale, project } = camera.eye
      const seen = places.map((place) => project(place as [number, number, number]))
      const reach = (bead.acrossMm / 2) * scale
      for (const [x, y] of seen) {
        expect(x - reach).toBeGreaterThanOrEqual(0)
        expect(x + reach).toBeLessThanOrEqual(width)
        expect(y - reach).toBeGreaterThanOrEqual(0)
        expect(y + reach).toBeLessThanOrEqual(height)
      }
      const span = (k: 0 | 1) => Math.max(...seen.map((at) => at[k])) - Math.min(...seen.map((at) => at[k])) + 2 * reach
      // Of something smaller than 4 mm the plate is not filled.
      if (span(0) > 4 * scale && span(1) > 4 * scale)
        expect(Math.max(span(0) / width, span(1) / height)).toBeCloseTo(1 / 1.1, 5)
    }),
  )
})

test('turning neither stretches a piece nor mirrors it; what is nearer hides what is behind it', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(angle, angle), { maxLength: 20 }), middles, (turns, places) => {
      const camera = new Camera()
      camera.measure(sceneOf(places))
      for (const [right, up] of turns) camera.turn(right, up)
      const [x, y, z] = [camera.pointing(1, 0, 0), camera.pointing(0, 1, 0), camera.pointing(0, 0, 1)]
      const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, v, k) => sum + v * (b[k] as number), 0)
      for (const [a, b, wanted] of [
        [x, x, 1],
        [y, y, 1],
        [z, z, 1],
        [x, y, 0],
        [y, z, 0],
        [z, x, 0],
      ] as const)
        expect(dot(a, b)).toBeCloseTo(wanted, 6)
      const crossed = [x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]]
      expect(dot(crossed, z)).toBeCloseTo(1, 6)
      for (const place of places) expect(camera.nearness(place, 0)).toBeCloseTo(camera.seen(place, 0)[2], 9)
    }),
  )
})

test('from behind, left is right; closer is larger, within bounds; room is left once', () => {
  const camera = new Camera()
  camera.resize(400, 400)
  camera.measure(
    sceneOf([
      [-5, 0, 0],
      [5, 2, 0],
    ]),
  )
  const front = camera.eye.project([5, 2, 0])
  camera.face('back')
  const back = camera.eye.project([5, 2, 0])
  expect(front[0] - 200).toBeCloseTo(200 - back[0], 9)
  expect(front[1]).toBeCloseTo(back[1], 9)
  const { scale } = camera
  camera.zoom(2)
  expect(camera.scale).toBeCloseTo(2 * scale, 9)
  for (let i = 0; i < 50; i++) camera.zoom(2)
  expect(camera.scale).toBeCloseTo(20 * scale, 6)
  camera.face('front')
  expect(camera.leaveRoom(4)).toBe(true)
  expect(camera.leaveRoom(4)).toBe(false)
  expect(camera.scale).toBeLessThan(scale)
})
