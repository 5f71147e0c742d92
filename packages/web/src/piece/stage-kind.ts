/** What shows a piece that can be turned: in the round (stage.ts), or drawn (drawn-stage.ts) where that is too slow or not to be had. */
import type { Scene } from '@tessellum/core/drawing/scene'
import type { Face } from '@tessellum/core/drawing/view'

/** How a bead is shown: as it is, quiet behind others, picked out, passed through, or not there yet. */
export type BeadLook = 'plain' | 'quiet' | 'new' | 'passed' | 'hidden'

export interface Dress {
  readonly colour: string
  readonly finish: string
}

/** How the piece is seen. */
export interface Eye {
  /** Where a point of the piece is seen: CSS pixels from the upper left. */
  project(point: readonly [x: number, y: number, z: number]): readonly [x: number, y: number]
  /** CSS pixels a mm. */
  readonly scale: number
  /** Of what it is seen on, CSS pixels. */
  readonly size: readonly [width: number, height: number]
}

export interface PieceStage {
  readonly eye: Eye
  /** Told whenever the piece has moved, or is seen from elsewhere. */
  onSeen: (() => void) | undefined
  show(scene: Scene, dress: Readonly<Record<string, Dress>>): void
  dressed(dress: Readonly<Record<string, Dress>>): void
  /** Where everything lies now; of the scene shown. */
  move(moved: Pick<Scene, 'poses' | 'thread'>): void
  /** How beads are shown, which passes of the thread are picked out, and up to which line stones have been laid in. */
  look(looks: (bead: number) => BeadLook, passes?: readonly [from: number, to: number], upTo?: number): void
  withThread(shown: boolean): void
  face(face: Face): void
  /** Room left round the piece, mm: for what is not there yet. */
  leaveRoom(mm: number): void
  /** Radians. */
  turn(right: number, up: number): void
  zoom(by: number): void
  /** The bead at a point, shares of width and height from the upper left. */
  beadAt(x: number, y: number): number | undefined
  /** CSS pixels. */
  resize(width: number, height: number): void
  dispose(): void
}
