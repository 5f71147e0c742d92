/** A piece painted by a worker, on a canvas that the page has handed over; by the page once the worker has broken. */
import { sceneOf } from '@tessellum/core/drawing/scene'
import { formedPattern } from '@tessellum/core/form/form-pattern'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { Piece } from '../src/piece/piece'
import { type FakeWorker, fakeWorkers } from './fake-worker'
import './on-screen'
import { type Pen, penOf } from './pen'

const { evaluated, form } = formedPattern('pattern T\nbead A round 11/0\npart p\nring 12A\nround A')
if (!form) throw new Error('There is no form.')
const scene = sceneOf(evaluated, form)

/** As the browser hands it over: of a size of its own. */
class Offscreen {
  getContext() {
    return penOf(this)
  }
}

/** A worker that is begun knows nothing of those before it. */
function workerTasks(): object {
  let own = {}
  jest.isolateModules(() => {
    own = require('../src/piece/paint-tasks').tasks
  })
  return own
}

let workers: FakeWorker[] | undefined
let handedOver: Offscreen[]
let frames: (() => void)[]
const canvasPrototype = HTMLCanvasElement.prototype

beforeEach(() => {
  handedOver = []
  frames = []
  const given = new WeakSet<object>()
  Object.assign(canvasPrototype, {
    getContext(this: HTMLCanvasElement, kind: string) {
      if (given.has(this)) throw new Error('It has been handed over.')
      // No graphics card.
      return kind === '2d' ? penOf(this) : null
    },
    transferControlToOffscreen(this: HTMLCanvasElement) {
      given.add(this)
      const offscreen = new Offscreen()
      handedOver.push(offscreen)
      return offscreen
    },
  })
  Object.assign(globalThis, {
    OffscreenCanvas: Offscreen,
    ResizeObserver: class {
      observe() {}
      disconnect() {}
    },
    requestAnimationFrame: (act: () => void) => frames.push(act),
    cancelAnimationFrame: () => {},
  })
  workers ??= fakeWorkers({ paint: workerTasks })
})
/** Frames and messages, until nothing is left to do. */
const settled = () =>
  act(async () => {
    for (let i = 0; i < 20; i++) {
      for (const frame of frames.splice(0)) frame()
      await new Promise((done) => setTimeout(done))
    }
  })

async function shown() {
  const page = render(
    <Piece scene={scene} dress={{}} face="front" onFace={() => {}} threadShown onThread={() => {}} label="The piece" />,
  )
  await waitFor(() => expect(canvas().dataset.look).toBe('drawn'))
  await settled()
  return page
}
const canvas = () => screen.getByRole('img') as HTMLCanvasElement
const beadsOn = (of: object) => penOf(of).laid.length

test('every bead is painted by the worker, and again when the piece is turned', async () => {
  await shown()
  const [offscreen] = handedOver as [Offscreen]
  expect(beadsOn(offscreen)).toBe(scene.beads.length)
  const before = [...penOf(offscreen).laid]
  fireEvent.keyDown(canvas(), { key: 'ArrowLeft' })
  await settled()
  expect(beadsOn(offscreen)).toBe(scene.beads.length)
  expect(penOf(offscreen).laid).not.toEqual(before)
  expect(workers?.map(({ name }) => name)).toEqual(['paint'])
})

test('what is put away is painted no more', async () => {
  const { unmount } = await shown()
  const [offscreen] = handedOver as [Offscreen]
  const pen: Pen = penOf(offscreen)
  unmount()
  pen.laid.length = 0
  await settled()
  expect(pen.laid).toEqual([])
})

test('where the worker breaks, the page goes on by itself, on a canvas of its own', async () => {
  await shown()
  const first = canvas()
  act(() => workers?.[0]?.breaks())
  // It is found out by the next change.
  fireEvent.keyDown(canvas(), { key: 'ArrowLeft' })
  await settled()
  await settled()
  expect(canvas()).not.toBe(first)
  expect(beadsOn(canvas())).toBe(scene.beads.length)
  expect(handedOver).toHaveLength(1)
})
