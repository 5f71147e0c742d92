/** From where a piece is seen: turned about its middle, nearer or farther, on a plate of so many CSS pixels. */
import type { Scene } from '@tessellum/core/drawing/scene'
import type { Face } from '@tessellum/core/drawing/view'
import type { Eye } from './stage-kind'

export type Vector = readonly [number, number, number]

/** All that a camera knows, so that it can be sent to a worker. */
export interface CameraState {
  /** The ways to the right, up and toward the eye. */
  readonly right: Vector
  readonly up: Vector
  readonly near: Vector
  /** Of the piece, mm. */
  readonly middle: Vector
  readonly extent: Vector
  /** Of the plate, CSS pixels. */
  readonly width: number
  readonly height: number
  readonly closer: number
  /** Left round the piece, mm. */
  readonly room: number
}

const atFirst: CameraState = {
  right: [1, 0, 0],
  up: [0, 1, 0],
  near: [0, 0, 1],
  middle: [0, 0, 0],
  extent: [20, 20, 5],
  width: 300,
  height: 300,
  closer: 1,
  room: 0,
}

export class Camera {
  constructor(private now: CameraState = atFirst) {}

  get state(): CameraState {
    return this.now
  }

  /** From one side, the whole of the piece in sight. */
  face(face: Face): void {
    this.set({
      right: face === 'front' ? [1, 0, 0] : face === 'back' ? [-1, 0, 0] : [0, 0, -1],
      near: face === 'front' ? [0, 0, 1] : face === 'back' ? [0, 0, -1] : [1, 0, 0],
      up: [0, 1, 0],
      closer: 1,
    })
  }

  /** @param right @param up radians */
  turn(right: number, up: number): void {
    const [c, s] = [Math.cos(right), Math.sin(right)]
    const { right: r, near: n, up: u } = this.now
    const m = both(r, s, n, c)
    const [cu, su] = [Math.cos(up), Math.sin(up)]
    this.set({ right: both(r, c, n, -s), up: both(u, cu, m, -su), near: both(u, su, m, cu) })
  }

  zoom(by: number): void {
    this.set({ closer: Math.min(20, Math.max(0.4, this.now.closer * by)) })
  }

  /** @returns whether it is other room than before */
  leaveRoom(mm: number): boolean {
    if (mm === this.now.room) return false
    this.set({ room: mm })
    return true
  }

  resize(width: number, height: number): void {
    this.set({ width, height })
  }

  /** Takes the whole of a piece into sight. */
  measure(scene: Scene): void {
    if (scene.beads.length === 0) return
    const low = [Infinity, Infinity, Infinity]
    const high = [-Infinity, -Infinity, -Infinity]
    const take = (k: number, at: number, reach: number) => {
      low[k] = Math.min(low[k] as number, at - reach)
      high[k] = Math.max(high[k] as number, at + reach)
    }
    scene.beads.forEach((bead, i) => {
      const reach = Math.max(bead.lengthMm, bead.wideMm ?? bead.acrossMm) / 2
      for (let k = 0; k < 3; k++) take(k, scene.poses[9 * i + k] as number, reach)
    })
    for (const { middle, outline, frontMm, backMm } of scene.stones) {
      for (const [x, y] of outline) {
        take(0, middle[0] + x, 0)
        take(1, middle[1] + y, 0)
      }
      take(2, middle[2], Math.max(frontMm, backMm))
    }
    const at = (of: (k: number) => number): Vector => [of(0), of(1), of(2)]
    this.set({
      middle: at((k) => ((low[k] as number) + (high[k] as number)) / 2),
      extent: at((k) => (high[k] as number) - (low[k] as number)),
    })
  }

  /** CSS pixels a mm: what is seen from the side last chosen fills the plate. */
  get scale(): number {
    const { right, extent, room, width, height, closer } = this.now
    const sideways = Math.abs(right[2]) > Math.abs(right[0])
    const across = sideways ? extent[2] : extent[0]
    const fits = (pixels: number, mm: number) => pixels / (Math.max(mm, 4) + 2 * room)
    return (Math.min(fits(width, across), fits(height, extent[1])) / 1.1) * closer
  }

  /** Where a point is seen from the middle of the plate, in mm: to the right, up, and toward the eye. */
  seen(at: ArrayLike<number>, from: number): Vector {
    const { middle } = this.now
    const x = (at[from] as number) - middle[0]
    const y = (at[from + 1] as number) - middle[1]
    const z = (at[from + 2] as number) - middle[2]
    return this.pointing(x, y, z)
  }

  /** How far toward the eye a point lies, mm. */
  nearness(at: ArrayLike<number>, from: number): number {
    const { near, middle } = this.now
    return (
      near[0] * ((at[from] as number) - middle[0]) +
      near[1] * ((at[from + 1] as number) - middle[1]) +
      near[2] * ((at[from + 2] as number) - middle[2])
    )
  }

  /** The same of a direction. */
  pointing(x: number, y: number, z: number): Vector {
    const { right, up, near } = this.now
    return [
      right[0] * x + right[1] * y + right[2] * z,
      up[0] * x + up[1] * y + up[2] * z,
      near[0] * x + near[1] * y + near[2] * z,
    ]
  }

  /** From a share of the plate's width and height to pixels from its middle. */
  fromMiddle(x: number, y: number): readonly [number, number] {
    return [(x - 0.5) * this.now.width, (y - 0.5) * this.now.height]
  }

  private set(change: Partial<CameraState>): void {
    this.now = { ...this.now, ...change }
  }

  get eye(): Eye {
    const { scale } = this
    const { width, height } = this.now
    return {
      scale,
      size: [width, height],
      project: (point) => {
        const [x, y] = this.seen(point, 0)
        return [width / 2 + x * scale, height / 2 - y * scale]
      },
    }
  }
}

const both = (a: Vector, x: number, b: Vector, y: number): Vector => [
  a[0] * x + b[0] * y,
  a[1] * x + b[1] * y,
  a[2] * x + b[2] * y,
]
