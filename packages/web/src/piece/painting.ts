/** Who paints a drawn piece: a worker where the browser lets one, so that the page answers to keys meanwhile; else the page itself. */
import { transfer } from 'comlink'
import { TaskWorker } from '../worker/begin-worker'
import type { Painting } from './drawn-stage'
import type { PaintTasks } from './paint-tasks'
import { PiecePainter } from './piece-painter'

const worker = new TaskWorker<PaintTasks>('paint')
let canvases = 0

export const canPaintInWorker = (): boolean =>
  typeof OffscreenCanvas !== 'undefined' && 'transferControlToOffscreen' in HTMLCanvasElement.prototype

/**
 * Nothing else can draw on the canvas any more.
 *
 * @param failed the worker did not begin, or broke
 */
export function paintedInWorker(canvas: HTMLCanvasElement, failed: () => void): Painting {
  const id = ++canvases
  const offscreen = canvas.transferControlToOffscreen()
  worker.ask((remote) => remote.begin(id, transfer(offscreen, [offscreen]))).catch(failed)
  return {
    paint: (changes) => void worker.ask((remote) => remote.paint(id, changes)).catch(failed),
    end: () => worker.tell((remote) => void remote.end(id)),
  }
}

/** @throws when the browser has no canvas to draw on */
export function paintedHere(canvas: HTMLCanvasElement): Painting {
  const painter = new PiecePainter(canvas)
  return {
    paint(changes) {
      painter.take(changes)
      painter.paint()
    },
    end() {},
  }
}
