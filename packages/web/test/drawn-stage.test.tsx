/** The piece as a drawing that is turned: what lies nearer is laid down later, where the eye sees it. */
import { type Scene, sceneOf } from '@tessellum/core/drawing/scene'
import { formedPattern } from '@tessellum/core/form/form-pattern'
import { act } from '@testing-library/react'
import { DrawnStage } from '../src/piece/drawn-stage'
import { paintedHere } from '../src/piece/painting'
import type { BeadLook } from '../src/piece/stage-kind'
import './on-screen'
import { type Pen, penOf } from './pen'

let pen: Pen
let frames: (() => void)[]

beforeEach(() => {
  frames = []
  Object.assign(HTMLCanvasElement.prototype, {
    getContext(this: HTMLCanvasElement) {
      return penOf(this)
    },
    setPointerCapture() {},
  })
  Object.assign(window, {
    requestAnimationFrame: (act: () => void) => frames.push(act),
    cancelAnimationFrame: () => frames.splice(0),
  })
})
const painted = () => {
  for (const each of frames.splice(0)) each()
}

function stageOf(...lines: string[]) {
  const { evaluated, form } = formedPattern(
    ['pattern T', 'bead A round 11/0', 'bead B round 8/0', 'part p', ...lines].join('\n'),
  )
  if (!form) throw new Error('There is no form.')
  const scene = sceneOf(evaluated, form)
  const canvas = document.createElement('canvas')
  const stage = new DrawnStage(canvas, paintedHere(canvas))
  pen = penOf(canvas)
  stage.resize(300, 200)
  stage.show(scene, {})
  painted()
  return { scene, stage, canvas }
}
const middleOf = (scene: Scene, bead: number) =>
  [0, 1, 2].map((k) => scene.poses[9 * bead + k] as number) as unknown as readonly [number, number, number]

/** Which bead each picture is of: the one that the eye sees nearest to where it lies. */
const beadsLaid = (scene: Scene, stage: DrawnStage) =>
  pen.laid.map(({ x, y }) => {
    const off = scene.beads.map((_, bead) => {
      const [ex, ey] = stage.eye.project(middleOf(scene, bead))
      return Math.hypot(ex - x, ey - y)
    })
    const bead = off.indexOf(Math.min(...off))
    expect(off[bead]).toBeLessThan(0.01)
    return bead
  })

test('every bead is laid down once, where the eye sees it, from whatever side', () => {
  const { scene, stage } = stageOf('ring 12A', 'round B')
  for (const turn of [() => {}, () => stage.face('side'), () => stage.turn(0.7, -0.4), () => stage.zoom(1.7)]) {
    turn()
    painted()
    expect(pen.laid).toHaveLength(scene.beads.length)
    expect(new Set(beadsLaid(scene, stage)).size).toBe(scene.beads.length)
  }
})

test('what is nearer comes later: from the back it is the other way about', () => {
  const { scene, stage } = stageOf('ring 9A', 'round A', 'round A', 'round A')
  const depths = () => beadsLaid(scene, stage).map((bead) => middleOf(scene, bead)[2])
  const rising = (of: readonly number[]) => of.every((z, k) => k === 0 || z >= (of[k - 1] as number) - 1e-4)
  expect(rising(depths())).toBe(true)
  stage.face('back')
  painted()
  expect(rising(depths().map((z) => -z))).toBe(true)
})

test('the bead at a point is the nearest one there, and none that is hidden', () => {
  const { scene, stage } = stageOf('ring 9A', 'round A', 'round A')
  stage.turn(0.5, 0.3)
  painted()
  const order = beadsLaid(scene, stage)
  const at = (bead: number) => {
    const [x, y] = stage.eye.project(middleOf(scene, bead))
    return stage.beadAt(x / 300, y / 200)
  }
  // What is laid down last lies over everything.
  const [first, last] = [order[0] as number, order.at(-1) as number]
  expect(at(last)).toBe(last)
  for (const bead of order) expect(order.indexOf(at(bead) as number)).toBeGreaterThanOrEqual(order.indexOf(bead))
  stage.look((bead): BeadLook => (bead === first ? 'plain' : 'hidden'))
  painted()
  expect(pen.laid).toHaveLength(1)
  expect(at(first)).toBe(first)
  const [x, y] = stage.eye.project(middleOf(scene, first))
  expect(stage.beadAt((x + 100) / 300, y / 200)).toBeUndefined()
})

test('the thread of what is picked out runs over everything, in the order in which it is gone', () => {
  const { scene, stage } = stageOf('ring 12A', 'round B')
  stage.withThread(false)
  painted()
  const without = pen.strokes.length
  stage.look(() => 'plain', [3, 7])
  painted()
  // The way, and the dots at its two ends.
  expect(pen.strokes.length - without).toBe(3)
  const [way] = pen.strokes.slice(-3)
  const ends = Array.from({ length: 8 }, (_, k) => {
    const p = 6 * 3 + 3 * k
    return stage.eye.project([scene.thread[p] as number, scene.thread[p + 1] as number, scene.thread[p + 2] as number])
  })
  for (const [k, [x, y]] of ends.entries()) {
    expect(way?.[k]?.[0]).toBeCloseTo(x, 1)
    expect(way?.[k]?.[1]).toBeCloseTo(y, 1)
  }
})

test('a finger on it turns it, and however much happens in between it is painted once a frame', () => {
  const { scene, stage, canvas } = stageOf('ring 12A')
  const before = stage.eye.project(middleOf(scene, 3))
  let seen = 0
  stage.onSeen = () => seen++
  const pointer = (type: string, x: number) =>
    act(() => void canvas.dispatchEvent(Object.assign(new Event(type), { clientX: x, clientY: 10, pointerId: 1 })))
  pointer('pointermove', 5)
  expect(stage.eye.project(middleOf(scene, 3))).toEqual(before)
  pointer('pointerdown', 10)
  for (const x of [20, 30, 40]) pointer('pointermove', x)
  expect(frames).toHaveLength(1)
  painted()
  expect(seen).toBe(1)
  expect(stage.eye.project(middleOf(scene, 3))).not.toEqual(before)
  pointer('pointerup', 40)
  const after = stage.eye.project(middleOf(scene, 3))
  pointer('pointermove', 90)
  expect(stage.eye.project(middleOf(scene, 3))).toEqual(after)
  stage.dispose()
  expect(frames).toEqual([])
})

test('a piece that moves is painted as it lies now; one of another number of beads is not this piece', () => {
  const { scene, stage } = stageOf('ring 12A')
  const poses = scene.poses.map((each, i) => (i % 9 === 0 ? each + 1 : each))
  stage.move({ poses, thread: scene.thread })
  painted()
  beadsLaid({ ...scene, poses }, stage)
  stage.move({ poses: poses.slice(9), thread: scene.thread })
  expect(frames).toEqual([])
})
