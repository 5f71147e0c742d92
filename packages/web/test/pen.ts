/** Canvases without pixels: what is drawn on them is written down. */

interface Laid {
  readonly x: number
  readonly y: number
  /** Of what the picture was made: beads and stones have gradients of their own colours. */
  readonly what: 'picture' | 'path'
}

/** A pen that writes down where it lays pictures, and what it strokes. */
export class Pen {
  readonly laid: Laid[] = []
  strokes: (readonly (readonly [number, number])[])[] = []
  private matrix: readonly number[] = [1, 0, 0, 1, 0, 0]
  private path: (readonly [number, number])[] = []
  strokeStyle = ''
  setTransform(...matrix: number[]) {
    this.matrix = matrix
  }
  drawImage() {
    this.laid.push({ x: this.matrix[4] ?? 0, y: this.matrix[5] ?? 0, what: 'picture' })
  }
  beginPath() {
    this.path = []
  }
  moveTo(x: number, y: number) {
    this.path.push([x + (this.matrix[4] ?? 0), y + (this.matrix[5] ?? 0)])
  }
  lineTo(x: number, y: number) {
    this.moveTo(x, y)
  }
  stroke() {
    this.strokes.push(this.path)
  }
  fill() {}
  closePath() {}
  arc() {}
  ellipse() {}
  translate() {}
  rotate() {}
  clearRect() {
    this.laid.length = 0
    this.strokes = []
  }
  createLinearGradient = () => ({ addColorStop() {} })
  createRadialGradient = () => ({ addColorStop() {} })
}

const pens = new WeakMap<object, Pen>()

/** Of a canvas, always the same. */
export function penOf(canvas: object): Pen {
  const own = pens.get(canvas) ?? new Pen()
  pens.set(canvas, own)
  return own
}
