import type { StoneShape } from '../catalogue/stone'
import type { Mm } from '../measure/units'

/** A point of an outline, with the unit normal that points away from the stone. */
export interface OutlinePoint {
  readonly x: Mm
  readonly y: Mm
  readonly nx: number
  readonly ny: number
}

/** An outline walked by the fraction of its length: 0 at the top, clockwise as seen from above, 1 back at the top. */
export type Outline = (turn: number) => OutlinePoint

const steps = 720

/** The curve of a stone's edge. A measured girth says nothing of the shape, so it is drawn as a circle. */
export function outlineOf(shape: StoneShape): Outline {
  const points = trace(shape)
  const lengths = [0]
  for (let i = 1; i <= points.length; i++) {
    const [ax, ay] = points[i - 1] as Point
    const [bx, by] = points[i % points.length] as Point
    lengths.push((lengths[i - 1] as number) + Math.hypot(bx - ax, by - ay))
  }
  const total = lengths[points.length] as number
  return (turn) => {
    const at = (turn - Math.floor(turn)) * total
    let low = 0
    let high = points.length
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if ((lengths[middle] as number) <= at) low = middle
      else high = middle
    }
    const [ax, ay] = points[low] as Point
    const [bx, by] = points[(low + 1) % points.length] as Point
    const step = (lengths[low + 1] as number) - (lengths[low] as number)
    const part = step > 0 ? (at - (lengths[low] as number)) / step : 0
    const [tx, ty] = step > 0 ? [(bx - ax) / step, (by - ay) / step] : [1, 0]
    return { x: ax + (bx - ax) * part, y: ay + (by - ay) * part, nx: -ty, ny: tx }
  }
}

type Point = readonly [x: number, y: number]

function trace(shape: StoneShape): Point[] {
  switch (shape.shape) {
    case 'round':
      return ellipse(shape.diameter / 2, shape.diameter / 2)
    case 'girth':
      return ellipse(shape.girth / Math.PI / 2, shape.girth / Math.PI / 2)
    case 'oval':
      return ellipse(shape.width / 2, shape.length / 2)
    case 'triangle':
      return triangle(shape.width)
    case 'square':
      return roundedRectangle(shape.width, shape.width, shape.corner)
    case 'rectangle':
      return roundedRectangle(shape.width, shape.length, shape.corner)
    case 'navette':
      return navette(shape.width, shape.length)
    case 'drop':
      return drop(shape.width, shape.length)
  }
}

const around = (point: (angle: number) => Point): Point[] =>
  Array.from({ length: steps }, (_, i) => point((2 * Math.PI * i) / steps))

const ellipse = (a: number, b: number) => around((angle) => [a * Math.sin(angle), b * Math.cos(angle)])

/** A smooth curve of constant width w with three soft corners, from the support function w/2 + e cos 3t; convex for e <= w/16. */
function triangle(w: number): Point[] {
  const e = w / 18
  return around((angle) => {
    const t = Math.PI / 2 - angle
    const corner = 3 * (t - Math.PI / 2)
    const h = w / 2 + e * Math.cos(corner)
    const slope = -3 * e * Math.sin(corner)
    return [h * Math.cos(t) - slope * Math.sin(t), h * Math.sin(t) + slope * Math.cos(t)]
  })
}

function roundedRectangle(width: number, length: number, corner: number): Point[] {
  const [a, b] = [width / 2 - corner, length / 2 - corner]
  const points: Point[] = [[0, length / 2]]
  for (const [cx, cy, from] of [
    [a, b, 0],
    [a, -b, 1],
    [-a, -b, 2],
    [-a, b, 3],
  ] as const) {
    for (let i = 0; i <= 24; i++) {
      const angle = ((from + i / 24) * Math.PI) / 2
      points.push([cx + corner * Math.sin(angle), cy + corner * Math.cos(angle)])
    }
  }
  return points
}

function navette(width: number, length: number): Point[] {
  const radius = (length ** 2 + width ** 2) / (4 * width)
  const half = Math.asin(length / (2 * radius))
  const side = (sign: 1 | -1) =>
    Array.from({ length: steps / 2 }, (_, i): Point => {
      const angle = sign * (half - (2 * half * i) / (steps / 2))
      return [sign * (radius * Math.cos(angle) - (radius - width / 2)), radius * Math.sin(angle)]
    })
  return [...side(1), ...side(-1)]
}

function drop(width: number, length: number): Point[] {
  const radius = width / 2
  const reach = length - radius
  const touch = Math.acos(radius / reach)
  const centre = -length / 2 + radius
  const arc = Array.from({ length: steps }, (_, i): Point => {
    const angle = touch + (2 * (Math.PI - touch) * i) / (steps - 1)
    return [radius * Math.sin(angle), centre + radius * Math.cos(angle)]
  })
  return [[0, length / 2], ...arc]
}
