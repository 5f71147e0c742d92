/**
 * What a piece minimises: the length of its thread against beads and stones that push each other apart. All of it is smooth and its slope is
 * exact, so that the piece comes to rest where its thread is shortest and not where it happened to be stuck.
 */
import type { Mm } from '../measure/units'
import { giveRoom, lieOnMat, rubOnGlass } from './forces/around'
import { type Press, Presses } from './forces/press'
import { pullThreads, pullTies, resistBending } from './forces/thread'
import type { Piece } from './piece'

/** How strong everything is at a stage of settling; see forces/. */
export interface Strengths {
  readonly stiffness: number
  readonly room: number
  readonly rubbing: number
  readonly mat: number
}

export class Energy {
  /** The slope, by point and by solid. */
  readonly onPoints: Float64Array
  readonly onSolids: Float64Array
  private readonly presses: Presses

  constructor(
    private readonly piece: Piece,
    private readonly tension: number,
    public strengths: Strengths,
  ) {
    this.presses = new Presses(piece)
    this.onPoints = new Float64Array(piece.at.length)
    this.onSolids = new Float64Array(piece.solids.length * 6)
  }

  /** The energy of the piece as it lies. */
  evaluate(): number {
    const { piece, tension, onPoints, onSolids } = this
    const { stiffness, room, rubbing, mat } = this.strengths
    onPoints.fill(0)
    onSolids.fill(0)
    return (
      pullThreads(piece, tension, onPoints) +
      pullTies(piece, tension, onPoints) +
      resistBending(piece, tension, onPoints) +
      lieOnMat(piece, mat, onPoints) +
      (room > 0 ? giveRoom(piece, room, onPoints) : 0) +
      rubOnGlass(piece, rubbing, onPoints, onSolids) +
      this.presses.evaluate(stiffness, onPoints, onSolids)
    )
  }

  pressed(nearMm: Mm): Press[] {
    return this.presses.pressed(nearMm)
  }
}
