/** Paints pieces off the page's own thread, on canvases that the page has handed over. */
import { type Picture, PiecePainter } from './piece-painter'

interface Canvas {
  readonly painter: PiecePainter
  wanted: number
}

const canvases = new Map<number, Canvas>()

export const tasks = {
  /** @throws when the browser has no canvas to draw on */
  begin(id: number, canvas: OffscreenCanvas): void {
    canvases.set(id, { painter: new PiecePainter(canvas), wanted: 0 })
  },

  /**
   * However many changes come before the next frame, it is painted once.
   *
   * @throws when it has no such canvas: another worker had it, and broke
   */
  paint(id: number, changes: Partial<Picture>): void {
    const canvas = canvases.get(id)
    if (!canvas) throw new Error('The canvas is not here any more.')
    canvas.painter.take(changes)
    canvas.wanted ||= requestAnimationFrame(() => {
      canvas.wanted = 0
      canvas.painter.paint()
    })
  },

  end(id: number): void {
    cancelAnimationFrame(canvases.get(id)?.wanted ?? 0)
    canvases.delete(id)
  },
}

export type PaintTasks = typeof tasks
