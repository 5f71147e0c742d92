/**
 * The piece turned as a drawing: beads as small pictures, made once for each tilt and laid down from back to front. A hundred times cheaper
 * than the round, and even on a machine without a graphics card two thousand beads turn smoothly.
 */
import type { Scene } from '@tessellum/core/drawing/scene'
import type { Face } from '@tessellum/core/drawing/view'
import { Camera } from './camera'
import { lookCode, paintedPiece } from './painted-piece'
import type { Picture } from './piece-painter'
import type { BeadLook, Dress, Eye, PieceStage } from './stage-kind'

/** Who paints it, on this thread or another (see `painting.ts`). */
export interface Painting {
  /** @param changes what is different from the last time */
  paint(changes: Partial<Picture>): void
  end(): void
}

export class DrawnStage implements PieceStage {
  private scene: Scene | undefined
  private looks: (bead: number) => BeadLook = () => 'plain'
  private readonly camera = new Camera()
  private wanted = 0
  private turnedFrom: { readonly x: number; readonly y: number } | undefined
  /** Not painted yet. */
  private changes: Partial<Picture> = { density: Math.min(2, window.devicePixelRatio) }
  onSeen: (() => void) | undefined
  private readonly ears = new AbortController()

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly painting: Painting,
  ) {
    canvas.dataset.look = 'drawn'
    this.listen()
  }

  dispose(): void {
    cancelAnimationFrame(this.wanted)
    this.ears.abort()
    this.painting.end()
  }

  show(scene: Scene, dress: Readonly<Record<string, Dress>>): void {
    const first = this.scene === undefined
    this.scene = scene
    this.camera.measure(scene)
    if (first) this.camera.face('front')
    const { poses, thread } = scene
    this.change({ dress, piece: paintedPiece(scene), lying: { poses, thread }, looks: this.codes(scene) })
  }

  dressed(dress: Readonly<Record<string, Dress>>): void {
    this.change({ dress })
  }

  move({ poses, thread }: Pick<Scene, 'poses' | 'thread'>): void {
    if (!this.scene || poses.length !== this.scene.poses.length) return
    // What is shown already need not be sent again.
    if (poses === this.scene.poses && thread === this.scene.thread) return
    this.scene = { ...this.scene, poses, thread }
    this.change({ lying: { poses, thread } })
  }

  look(looks: (bead: number) => BeadLook, passes?: readonly [number, number], upTo = Number.POSITIVE_INFINITY): void {
    this.looks = looks
    this.change({ passes, upTo, ...(this.scene && { looks: this.codes(this.scene) }) })
  }

  withThread(threadShown: boolean): void {
    this.change({ threadShown })
  }

  face(face: Face): void {
    this.camera.face(face)
    if (this.scene) this.camera.measure(this.scene)
    this.change()
  }

  leaveRoom(mm: number): void {
    if (this.camera.leaveRoom(mm)) this.change()
  }

  turn(right: number, up: number): void {
    this.camera.turn(right, up)
    this.change()
  }

  zoom(by: number): void {
    this.camera.zoom(by)
    this.change()
  }

  resize(width: number, height: number): void {
    this.camera.resize(width, height)
    this.change()
  }

  get eye(): Eye {
    return this.camera.eye
  }

  beadAt(x: number, y: number): number | undefined {
    const { scene } = this
    if (!scene) return undefined
    const { scale } = this.camera
    const [px, py] = this.camera.fromMiddle(x, y)
    let found: number | undefined
    let nearest = Number.NEGATIVE_INFINITY
    scene.beads.forEach((bead, i) => {
      if (this.looks(i) === 'hidden') return
      const at = this.camera.seen(scene.poses, 9 * i)
      const reach = (Math.max(bead.lengthMm, bead.acrossMm) / 2) * scale
      const off = Math.hypot(at[0] * scale - px, -at[1] * scale - py)
      if (off > reach || at[2] <= nearest) return
      nearest = at[2]
      found = i
    })
    return found
  }

  // --- hands ----------------------------------------------------------------------------------------------------

  private listen(): void {
    const { canvas } = this
    const { signal } = this.ears
    canvas.addEventListener(
      'pointerdown',
      (event) => {
        this.turnedFrom = { x: event.clientX, y: event.clientY }
        canvas.setPointerCapture(event.pointerId)
        this.change({ held: true })
      },
      { signal },
    )
    canvas.addEventListener(
      'pointermove',
      (event) => {
        if (!this.turnedFrom) return
        this.turn((event.clientX - this.turnedFrom.x) * 0.009, (event.clientY - this.turnedFrom.y) * 0.009)
        this.turnedFrom = { x: event.clientX, y: event.clientY }
      },
      { signal },
    )
    for (const end of ['pointerup', 'pointercancel'] as const)
      canvas.addEventListener(
        end,
        () => {
          this.turnedFrom = undefined
          this.change({ held: false })
        },
        { signal },
      )
    canvas.addEventListener(
      'wheel',
      (event) => {
        event.preventDefault()
        this.zoom(event.deltaY < 0 ? 1.12 : 1 / 1.12)
      },
      { signal, passive: false },
    )
  }

  // --- drawing --------------------------------------------------------------------------------------------------

  /** However much happens in between, it is painted once a frame. */
  private change(changes: Partial<Picture> = {}): void {
    Object.assign(this.changes, changes)
    if (this.wanted) return
    this.wanted = requestAnimationFrame(() => {
      this.wanted = 0
      const changes = { ...this.changes, camera: this.camera.state }
      this.changes = {}
      this.painting.paint(changes)
      this.onSeen?.()
    })
  }

  private codes({ beads }: Scene): Uint8Array {
    return Uint8Array.from(beads, (_, bead) => lookCode[this.looks(bead)])
  }
}
