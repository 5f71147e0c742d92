/** What a click on the piece means, and where beads are drawn that it does not hold yet. */
import { sceneOf } from '@tessellum/core/drawing/scene'
import { formedPattern } from '@tessellum/core/form/form-pattern'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import { beadOf, wayOf } from '@tessellum/core/stitch/hole'
import type { Eye } from '../src/piece/stage-kind'
import { layHand } from '../src/stitching/hand-layout'
import { exitPoint, holeClicked, lastExit, mouthsOf, ownHole } from '../src/stitching/pointing'

const head = ['pattern T', 'bead A round 11/0', 'bead C round 15/0', 'bead T twin tile 5 x 5 x 1.9 mm', 'part t']
const eye: Eye = { project: ([x, y]) => [100 + 10 * x, 100 - 10 * y], scale: 10, size: [200, 200] }

function drawn(...lines: string[]) {
  const { evaluated, form } = formedPattern([...head, ...lines].join('\n'))
  if (!form) throw new Error('There is no form.')
  return sceneOf(evaluated, form)
}

const pick: HandPass = { type: 'pick', role: 'C', bore: 0 }

test('the mouths of a bead are where its thread goes in and comes out', () => {
  const scene = drawn('ring 12A', 'round C')
  for (const [pass, { hole }] of scene.passes.entries()) {
    const [first, second] = mouthsOf(scene, beadOf(hole), 0)
    const [entry, exit] = wayOf(hole) === 1 ? [first, second] : [second, first]
    for (const [k, end] of [entry, exit].entries())
      for (let c = 0; c < 3; c++) expect(end[c]).toBeCloseTo(scene.thread[6 * pass + 3 * k + c] as number, 1)
  }
})

test('round a ring, the nearer end is the one that goes on round; with Shift it is the other', () => {
  const scene = drawn('ring 12A')
  const needle = scene.passes.at(-1)?.hole
  const from = lastExit(scene, [pick], needle)
  for (const bead of [1, 2]) {
    const click = { bead, at: [0, 0] as const, otherWay: false }
    expect(wayOf(holeClicked(scene, click, eye, from).hole)).toBe(1)
    expect(wayOf(holeClicked(scene, { ...click, otherWay: true }, eye, from).hole)).toBe(-1)
  }
  const [near, far] = [1, 6].map((bead) => holeClicked(scene, { bead, at: [0, 0], otherWay: false }, eye, from).gapMm)
  expect(far).toBeGreaterThan((near as number) + 3)
})

test('a two-hole bead is passed through the hole that was clicked', () => {
  const scene = drawn('ring (T 2A) x 6')
  const tile = scene.beads.findIndex(({ role }) => role === 'T')
  for (const bore of [0, 1] as const) {
    const [[ax, ay, az], [bx, by, bz]] = mouthsOf(scene, tile, bore)
    const at = eye.project([(ax + bx) / 2, (ay + by) / 2, (az + bz) / 2])
    expect((holeClicked(scene, { bead: tile, at, otherWay: false }, eye, undefined).hole >> 1) & 1).toBe(bore)
  }
})

test('of beads in hand, the last few are gone back through, and those farther off close a loop', () => {
  const passes = Array.from({ length: 9 }, () => pick)
  expect(wayOf(ownHole(passes, 20, 20, false))).toBe(1)
  expect(wayOf(ownHole(passes, 20, 27, false))).toBe(-1)
  expect(wayOf(ownHole(passes, 20, 27, true))).toBe(1)
})

describe('beads in hand', () => {
  const scene = drawn('ring 16A')
  const from = eye.project(exitPoint(scene, scene.passes.at(-1)?.hole as number))
  const lay = (passes: readonly HandPass[]) =>
    layHand({
      passes,
      beads: 16,
      from,
      ends: (h) => {
        const [a, b] = mouthsOf(scene, beadOf(h), 0)
        return wayOf(h) === 1 ? [eye.project(a), eye.project(b)] : [eye.project(b), eye.project(a)]
      },
      sizeOf: () => 10,
      middle: [100, 100],
    })
  const apart = (a: readonly [number, number], b: readonly [number, number]) => Math.hypot(a[0] - b[0], a[1] - b[1])

  test('hang from where the thread comes out, one after the other, away from the piece', () => {
    const { beads, needle } = lay([pick, pick, pick, pick])
    expect(beads).toHaveLength(4)
    expect(apart(beads[0]?.at ?? [0, 0], from)).toBeLessThan(12)
    for (let i = 1; i < 4; i++) expect(apart(beads[i]?.at ?? [0, 0], beads[i - 1]?.at ?? [0, 0])).toBeCloseTo(11, -1)
    expect(apart(beads[3]?.at ?? [0, 0], [100, 100])).toBeGreaterThan(apart(from, [100, 100]))
    expect(needle?.at).toEqual(beads[3]?.at)
  })
  test('between two beads of the piece they lie between them; none on another', () => {
    const { beads } = lay([pick, pick, pick, { type: 'pass', hole: 4 * 4 }])
    const into = eye.project(mouthsOf(scene, 4, 0)[0])
    expect(apart(beads[0]?.at ?? [0, 0], from)).toBeLessThan(apart(beads[2]?.at ?? [0, 0], from))
    expect(apart(beads[2]?.at ?? [0, 0], into)).toBeLessThan(apart(beads[0]?.at ?? [0, 0], into))
    for (const [i, a] of beads.entries())
      for (const b of beads.slice(i + 1)) expect(apart(a.at, b.at)).toBeGreaterThan(6)
  })
  test('lie the same every time', () => {
    expect(lay([pick, pick])).toEqual(lay([pick, pick]))
  })
})
