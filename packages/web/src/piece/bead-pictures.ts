/** Pictures of beads, made once for each look and tilt, and laid down as often as there are beads of them. */
import { bodyOf } from '@tessellum/core/drawing/body'
import type { SceneBead } from '@tessellum/core/drawing/scene'
import { type Silhouette, silhouetteOf } from '@tessellum/core/drawing/silhouette'
import { mixed } from './colour-mix'
import { brass, ink, paper, thick } from './inks'
import type { BeadLook, Dress } from './stage-kind'

/** Tilts of the hole that get pictures of their own. */
export const tilts = 14
/** Ways round that get pictures of their own, where beads are not turned one by one. */
export const angles = 64

export interface BeadPicture {
  readonly image: CanvasImageSource
  /** Pixels from its middle to its edge. */
  readonly half: number
}

/** Of a canvas on the page or in a worker. */
export type Pen = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

export class BeadPictures {
  private readonly made = new Map<string, BeadPicture>()
  private dress: Readonly<Record<string, Dress>> = {}

  private scale = 0

  dressed(dress: Readonly<Record<string, Dress>>): void {
    this.dress = dress
    this.made.clear()
  }

  /** @param scale pixels a mm, of all from now on */
  ofScale(scale: number): void {
    if (scale === this.scale) return
    this.scale = scale
    this.made.clear()
  }

  /** Where there are many beads they are not turned one by one, which costs ten times as much: each way round has a picture of its own. */
  turned(bead: SceneBead, look: BeadLook, tilt: number, angle: number): BeadPicture {
    const key = `${bead.role} ${look} ${tilt} ${angle}`
    const known = this.made.get(key)
    if (known) return known
    const { image, half } = this.picture(bead, look, tilt)
    const made = madeBy(half, (pen) => {
      pen.rotate((2 * Math.PI * angle) / angles)
      pen.drawImage(image, -half, -half)
    })
    this.made.set(key, made)
    return made
  }

  /** A bead of a role as it looks with its hole tilted so far toward the eye, the hole to the right. */
  picture(bead: SceneBead, look: BeadLook, tilt: number): BeadPicture {
    const key = `${bead.role} ${look} ${tilt}`
    const known = this.made.get(key)
    if (known) return known
    const sine = Math.min(1, tilt / tilts)
    const seen = silhouetteOf(bodyOf(bead), bead.boreMm, [Math.sqrt(1 - sine * sine), 0, sine], [0, 1, 0])
    const reach = seen.outline.reduce((most, [x, y]) => Math.max(most, Math.hypot(x, y)), 0)
    const half = Math.ceil(reach * this.scale * 1.25) + 2
    const made = madeBy(half, (pen) => this.paint(pen, bead, look, seen))
    this.made.set(key, made)
    return made
  }

  /** At the origin of the pen, as it is seen. */
  paint(pen: Pen, bead: SceneBead, look: BeadLook, seen: Silhouette): void {
    const { scale } = this
    const { colour, finish } = this.dress[bead.role] ?? { colour: '#fffdf7', finish: '' }
    const own = look === 'quiet' ? mixed(colour, paper, 0.72) : look === 'passed' ? mixed(colour, paper, 0.35) : colour
    const across = seen.outline.reduce((most, [, y]) => Math.max(most, Math.abs(y)), 0) * scale
    const trace = (points: readonly (readonly [number, number])[]) => {
      for (const [k, [x, y]] of points.entries())
        k === 0 ? pen.moveTo(x * scale, y * scale) : pen.lineTo(x * scale, y * scale)
    }
    pen.lineJoin = 'round'
    pen.beginPath()
    trace(seen.outline)
    pen.closePath()
    pen.fillStyle = shade(pen, own, finish, across, look === 'quiet')
    pen.fill()
    pen.lineWidth =
      look === 'new'
        ? thick(2, 0.16 * scale, 4)
        : look === 'passed'
          ? thick(1.6, 0.13 * scale, 3.4)
          : thick(0.7, 0.07 * scale, 1.6)
    pen.strokeStyle =
      look === 'passed'
        ? brass
        : look === 'quiet'
          ? mixed(own, ink, 0.35)
          : look === 'new'
            ? ink
            : mixed(own, ink, 0.75)
    pen.stroke()
    pen.beginPath()
    for (const line of seen.lines) trace(line)
    pen.lineWidth = thick(0.5, 0.05 * scale, 1)
    pen.strokeStyle = mixed(own, ink, look === 'quiet' ? 0.25 : 0.5)
    pen.stroke()
    pen.fillStyle = mixed(own, ink, 0.72)
    for (const { at, rx, ry } of seen.mouths) {
      pen.beginPath()
      pen.ellipse(at[0] * scale * 0.95, at[1] * scale * 0.95, rx * scale, ry * scale, 0, 0, 2 * Math.PI)
      pen.fill()
    }
  }
}

/** @param draw with the pen in the middle */
function madeBy(half: number, draw: (pen: Pen) => void): BeadPicture {
  const canvas = squareOf(2 * half)
  const pen = canvas.getContext('2d') as Pen | null
  pen?.translate(half, half)
  if (pen) draw(pen)
  // Laid down faster than a canvas.
  return { image: 'transferToImageBitmap' in canvas ? canvas.transferToImageBitmap() : canvas, half }
}

/** Older browsers have canvases on the page only. */
function squareOf(side: number): HTMLCanvasElement | OffscreenCanvas {
  if (typeof OffscreenCanvas !== 'undefined') return new OffscreenCanvas(side, side)
  const canvas = document.createElement('canvas')
  canvas.width = canvas.height = side
  return canvas
}

/** Light along the upper side of a bead, as its finish throws it back. */
function shade(pen: Pen, colour: string, finish: string, across: number, quiet: boolean): CanvasGradient {
  const bright = quiet
    ? 0.12
    : /matt|frost/.test(finish)
      ? 0.12
      : /lustre|metal|silver|galvan|glass|pearl/.test(finish)
        ? 0.62
        : 0.4
  const light = pen.createLinearGradient(0, -across, 0, across)
  light.addColorStop(0, mixed(colour, ink, quiet ? 0.06 : 0.22))
  light.addColorStop(0.2, mixed(colour, '#ffffff', bright * 0.35))
  light.addColorStop(0.32, mixed(colour, '#ffffff', bright))
  light.addColorStop(0.46, mixed(colour, '#ffffff', bright * 0.2))
  light.addColorStop(0.72, colour)
  light.addColorStop(1, mixed(colour, ink, quiet ? 0.1 : 0.34))
  return light
}
