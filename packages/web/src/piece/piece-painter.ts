/** Paints a piece on a canvas, from back to front. In a worker where the browser can, so that the page answers to keys meanwhile. */
import { bodyOf, sameAllRound } from '@tessellum/core/drawing/body'
import type { Scene, SceneBead } from '@tessellum/core/drawing/scene'
import { silhouetteOf } from '@tessellum/core/drawing/silhouette'
import { stoneSilhouette } from '@tessellum/core/drawing/stone-silhouette'
import { angles, BeadPictures, type Pen, tilts } from './bead-pictures'
import { Camera, type CameraState, type Vector } from './camera'
import { mixed } from './colour-mix'
import { ink, thick, thread, way } from './inks'
import { lookOf, type PaintedPiece } from './painted-piece'
import type { BeadLook, Dress } from './stage-kind'

/** So many beads are turned one by one; of more, each way round has a picture. */
const maxTurned = 260
/** Thread between so many beads is left out while the piece is being turned. */
const maxThreaded = 700

/** What is to be painted. */
export interface Picture {
  /** Undefined before there is one. */
  readonly piece: PaintedPiece | undefined
  readonly lying: Pick<Scene, 'poses' | 'thread'>
  /** By role; "stone" for the stone. */
  readonly dress: Readonly<Record<string, Dress>>
  /** By bead, as `lookCode` numbers them. */
  readonly looks: Uint8Array
  /** The passes that are picked out. */
  readonly passes: readonly [from: number, to: number] | undefined
  /** Stones of later lines are not there yet. */
  readonly upTo: number
  readonly threadShown: boolean
  readonly camera: CameraState
  /** Pixels of the canvas for one of CSS. */
  readonly density: number
  /** It is being turned by hand. */
  readonly held: boolean
}

const empty = new Float32Array(0)

/** Nothing. */
const blank: Picture = {
  piece: undefined,
  lying: { poses: empty, thread: empty },
  dress: {},
  looks: new Uint8Array(0),
  passes: undefined,
  upTo: Number.POSITIVE_INFINITY,
  threadShown: true,
  camera: new Camera().state,
  density: 1,
  held: false,
}

export class PiecePainter {
  private readonly pen: Pen
  private shown: Picture = blank
  private camera = new Camera()
  private readonly pictures = new BeadPictures()
  private order: number[] = []
  private depth: Float32Array = new Float32Array(0)

  /** @throws when the browser has no canvas to draw on */
  constructor(private readonly canvas: HTMLCanvasElement | OffscreenCanvas) {
    const pen = canvas.getContext('2d') as Pen | null
    if (!pen) throw new Error('This browser cannot draw on a canvas.')
    this.pen = pen
  }

  /** @param changes what is different from the last time */
  take(changes: Partial<Picture>): void {
    this.shown = { ...this.shown, ...changes }
    if (changes.dress) this.pictures.dressed(changes.dress)
    if (changes.piece) this.order = []
    this.camera = new Camera(this.shown.camera)
  }

  paint(): void {
    const { pen, canvas, camera } = this
    const { piece, lying, threadShown, held, density } = this.shown
    const width = Math.round(camera.state.width * density)
    const height = Math.round(camera.state.height * density)
    // Setting it wipes the canvas, even where it stays as it is.
    if (canvas.width !== width) canvas.width = width
    if (canvas.height !== height) canvas.height = height
    pen.setTransform(1, 0, 0, 1, 0, 0)
    pen.clearRect(0, 0, canvas.width, canvas.height)
    if (!piece) return
    const beads = piece.sortOf.length
    const stretches = piece.stretches.length / 3
    const shown = threadShown && !(held && beads > maxThreaded) ? stretches : 0
    const stones = beads + stretches
    const all = stones + piece.stones.length + piece.rings.length
    if (this.order.length !== all) {
      this.order = Array.from({ length: all }, (_, i) => i)
      this.depth = new Float32Array(all)
    }
    const { depth } = this
    for (let i = 0; i < beads; i++) depth[i] = camera.nearness(lying.poses, 9 * i)
    for (let i = 0; i < stretches; i++) {
      const p = 6 * (piece.stretches[3 * i] as number) + 3
      depth[beads + i] = (camera.nearness(lying.thread, p) + camera.nearness(lying.thread, p + 3)) / 2
    }
    for (const [i, { middle }] of [...piece.stones, ...piece.rings].entries())
      depth[stones + i] = camera.nearness(middle, 0)
    // Nearly in order from the last time, which sorting makes use of.
    this.order.sort((a, b) => (depth[a] as number) - (depth[b] as number))

    const scale = camera.scale * density
    this.pictures.ofScale(scale)
    const [cx, cy] = [canvas.width / 2, canvas.height / 2]
    pen.setTransform(1, 0, 0, 1, 0, 0)
    for (const i of this.order) {
      if (i < beads) this.bead(piece, i, scale, cx, cy)
      else if (i < stones) {
        if (i - beads < shown) this.stretch(piece, i - beads, scale, cx, cy)
      } else if (i < stones + piece.stones.length) this.stone(piece, i - stones, scale, cx, cy)
      else this.ring(piece, i - stones - piece.stones.length, scale, cx, cy)
    }
    this.wayThrough(piece, scale, cx, cy)
  }

  private bead(piece: PaintedPiece, i: number, scale: number, cx: number, cy: number): void {
    const look = lookOf(this.shown.looks, i)
    if (look === 'hidden') return
    const { poses } = this.shown.lying
    const bead = piece.sorts[piece.sortOf[i] as number] as SceneBead
    const at = this.camera.seen(poses, 9 * i)
    const p = 9 * i + 3
    const axis = this.camera.pointing(poses[p] as number, poses[p + 1] as number, poses[p + 2] as number)
    const x = cx + at[0] * scale
    const y = cy - at[1] * scale
    const { pen } = this
    if (!sameAllRound(bodyOf(bead))) {
      const side = this.camera.pointing(poses[p + 3] as number, poses[p + 4] as number, poses[p + 5] as number)
      this.flatBead(bead, look, axis, side, x, y)
      return
    }
    // The mouth is always toward the eye: the way of the hole is turned to come out of the page.
    const out = axis[2] < 0 ? -1 : 1
    const [ax, ay] = [axis[0] * out, -axis[1] * out]
    const flat = Math.hypot(ax, ay)
    const few = piece.sortOf.length <= maxTurned
    const tilt = Math.round(Math.abs(axis[2]) * (few ? tilts : tilts / 2)) * (few ? 1 : 2)
    if (few) {
      const picture = this.pictures.picture(bead, look, tilt)
      const [c, s] = flat > 1e-4 ? [ax / flat, ay / flat] : [1, 0]
      pen.setTransform(c, s, -s, c, x, y)
      pen.drawImage(picture.image, -picture.half, -picture.half)
      return
    }
    pen.setTransform(1, 0, 0, 1, 0, 0)
    const angle = (Math.round((Math.atan2(ay, ax) / (2 * Math.PI)) * angles) + angles) % angles
    const picture = this.pictures.turned(bead, look, tilt, angle)
    pen.drawImage(picture.image, Math.round(x) - picture.half, Math.round(y) - picture.half)
  }

  /** A bead that does not look the same all round has no one tilt: it is drawn as it lies. */
  private flatBead(bead: SceneBead, look: BeadLook, axis: Vector, side: Vector, x: number, y: number): void {
    const { pen } = this
    pen.setTransform(1, 0, 0, 1, x, y)
    const down = ([right, up, near]: Vector): Vector => [right, -up, near]
    this.pictures.paint(pen, bead, look, silhouetteOf(bodyOf(bead), bead.boreMm, down(axis), down(side)))
  }

  private stretch(piece: PaintedPiece, i: number, scale: number, cx: number, cy: number): void {
    const [pass, before, after] = piece.stretches.subarray(3 * i) as unknown as readonly [number, number, number]
    const { looks, lying } = this.shown
    if (lookOf(looks, before) === 'hidden' || lookOf(looks, after) === 'hidden') return
    const a = this.camera.seen(lying.thread, 6 * pass + 3)
    const b = this.camera.seen(lying.thread, 6 * pass + 6)
    const [x, y] = [(b[0] - a[0]) * scale, (b[1] - a[1]) * scale]
    if (x * x + y * y < 2) return
    const { pen } = this
    pen.setTransform(1, 0, 0, 1, 0, 0)
    pen.beginPath()
    pen.moveTo(cx + a[0] * scale, cy - a[1] * scale)
    pen.lineTo(cx + b[0] * scale, cy - b[1] * scale)
    pen.lineWidth = Math.max(1, 0.14 * scale)
    pen.strokeStyle = thread
    pen.stroke()
  }

  private stone(piece: PaintedPiece, i: number, scale: number, cx: number, cy: number): void {
    const stone = piece.stones[i] as PaintedPiece['stones'][number]
    if (stone.statement > this.shown.upTo) return
    const { outline: points, lines } = stoneSilhouette(
      stone,
      (place) => {
        const at = this.camera.seen(place, 0)
        return [at[0] * scale, -at[1] * scale]
      },
      this.camera.pointing(...stone.front)[2],
    )
    const { pen } = this
    const { colour, finish } = this.shown.dress.stone ?? { colour: '#c9cfc9', finish: 'glass' }
    const reach = points.reduce((most, [x, y]) => Math.max(most, Math.hypot(x, y)), 1)
    pen.setTransform(1, 0, 0, 1, cx, cy)
    pen.beginPath()
    for (const [k, [x, y]] of points.entries()) k === 0 ? pen.moveTo(x, y) : pen.lineTo(x, y)
    pen.closePath()
    const light = pen.createRadialGradient(-reach * 0.3, -reach * 0.35, reach * 0.05, 0, 0, reach)
    light.addColorStop(0, mixed(colour, '#ffffff', /matt/.test(finish) ? 0.15 : 0.5))
    light.addColorStop(0.35, mixed(colour, '#ffffff', 0.08))
    light.addColorStop(1, mixed(colour, ink, 0.35))
    pen.fillStyle = light
    pen.fill()
    pen.lineWidth = 0.1 * scale
    pen.strokeStyle = mixed(colour, ink, 0.75)
    pen.stroke()
    pen.beginPath()
    for (const line of lines) for (const [k, [x, y]] of line.entries()) k === 0 ? pen.moveTo(x, y) : pen.lineTo(x, y)
    pen.lineWidth = thick(0.5, 0.05 * scale, 1)
    pen.strokeStyle = mixed(colour, ink, 0.4)
    pen.stroke()
  }

  private ring(piece: PaintedPiece, i: number, scale: number, cx: number, cy: number): void {
    const { middle, outerMm, wireMm } = piece.rings[i] as PaintedPiece['rings'][number]
    const { pen } = this
    pen.setTransform(1, 0, 0, 1, cx, cy)
    pen.beginPath()
    for (let k = 0; k <= 72; k++) {
      const angle = (k * Math.PI) / 36
      const r = outerMm - wireMm / 2
      const at = this.camera.seen([middle[0] + r * Math.cos(angle), middle[1] + r * Math.sin(angle), middle[2]], 0)
      if (k === 0) pen.moveTo(at[0] * scale, -at[1] * scale)
      else pen.lineTo(at[0] * scale, -at[1] * scale)
    }
    pen.lineWidth = wireMm * scale
    pen.strokeStyle = '#9aa09c'
    pen.stroke()
  }

  /** The thread of what is picked out, over everything: in at the open dot, out at the full one. */
  private wayThrough(piece: PaintedPiece, scale: number, cx: number, cy: number): void {
    const { passes, lying } = this.shown
    if (!passes) return
    const { pen } = this
    const [from, to] = passes
    pen.setTransform(1, 0, 0, 1, cx, cy)
    pen.lineWidth = thick(1.8, 0.13 * scale, 3.4)
    pen.lineJoin = 'round'
    pen.strokeStyle = way
    pen.beginPath()
    const ends: Vector[] = []
    for (let pass = from; pass < to; pass++) {
      for (const end of [6 * pass, 6 * pass + 3]) {
        const at = this.camera.seen(lying.thread, end)
        if (end === 6 * pass && (pass === from || piece.begins[pass])) pen.moveTo(at[0] * scale, -at[1] * scale)
        else pen.lineTo(at[0] * scale, -at[1] * scale)
        ends.push(at)
      }
    }
    pen.stroke()
    const [first, last] = [ends[0], ends[ends.length - 1]]
    const dot = thick(4, 0.4 * scale, 8)
    for (const [end, fill] of [
      [first, '#ffffff'],
      [last, way],
    ] as const) {
      if (!end) continue
      pen.beginPath()
      pen.arc(end[0] * scale, -end[1] * scale, dot, 0, 2 * Math.PI)
      pen.fillStyle = fill
      pen.fill()
      pen.stroke()
    }
  }
}
