/**
 * What a piece minimises: the length of its thread against beads and stones that push each other apart. All of it is smooth and its slope is
 * exact, so that the piece comes to rest where its thread is shortest and not where it happened to be stuck.
 */
import type { Mm } from '../measure/units'
import { rubOnGlass } from './forces/glass'
import { type Contact, contactColumns, contactOf, type Press, Presses } from './forces/press'
import { type Columns, Kernel } from './kernel/kernel'
import type { Piece } from './piece'

/** How strong everything is at a stage of settling; see the kernel, and forces/. */
export interface Strengths {
  readonly stiffness: number
  readonly room: number
  readonly rubbing: number
  readonly mat: number
}

/** What its points and threads need in the kernel's memory. */
const pieceColumns = ({
  at,
  lengths,
  threads,
  natural,
  pulls,
  within,
  ties,
  bends,
  rims,
  rodOf,
  shapeOf,
}: Piece): Columns => ({
  ...{ at, lengths, threads, natural, pulls, within, ties, bends, rims, rodOf },
  shapeOf: Int32Array.from(shapeOf),
  onPoints: at.length,
})

export class Energy {
  /** The slope by point is in the kernel; this is by solid. */
  readonly onSolids: Float64Array
  private readonly presses: Presses

  private constructor(
    readonly kernel: Kernel,
    private readonly piece: Piece,
    contact: Contact,
    private readonly tension: number,
    public strengths: Strengths,
  ) {
    this.presses = new Presses(kernel, piece, contact)
    this.onSolids = new Float64Array(piece.solids.length * 6)
  }

  /** @param more columns that whoever minimises it needs */
  static of(piece: Piece, tension: number, strengths: Strengths, more: Columns = {}): Energy {
    const contact = contactOf(piece)
    const kernel = new Kernel({ ...pieceColumns(piece), ...contactColumns(piece, contact), ...more })
    return new Energy(kernel, piece, contact, tension, strengths)
  }

  /** The energy of the piece as it lies. */
  evaluate(): number {
    const { kernel, piece, tension, onSolids } = this
    const { loops } = kernel
    const { stiffness, room, rubbing, mat } = this.strengths
    this.follow()
    const onPoints = kernel.floats('onPoints')
    onPoints.fill(0)
    onSolids.fill(0)
    return (
      loops.pullThreads(piece.within.length, tension) +
      loops.pullTies(piece.ties.length / 3, tension) +
      loops.resistBending(piece.rims.length, tension) +
      loops.lieOnMat(piece.rods, mat) +
      (room > 0 ? loops.giveRoom(piece.rods, room) : 0) +
      rubOnGlass(piece, rubbing, onPoints, onSolids) +
      this.presses.evaluate(stiffness, onSolids)
    )
  }

  pressed(nearMm: Mm): Press[] {
    this.follow()
    return this.presses.pressed(nearMm)
  }

  /** Beads that are nearer than they reach, of a piece that nobody settles. */
  static pressed(piece: Piece, nearMm: Mm): Press[] {
    const contact = contactOf(piece)
    const kernel = new Kernel({ ...pieceColumns(piece), ...contactColumns(piece, contact) })
    const found = new Presses(kernel, piece, contact).pressed(nearMm)
    kernel.release()
    return found
  }

  private follow(): void {
    const { kernel, piece } = this
    kernel.floats('at').set(piece.at)
    kernel.floats('natural').set(piece.natural)
  }
}
