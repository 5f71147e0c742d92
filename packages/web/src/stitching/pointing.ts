/** What a click on the piece means: which hole of the bead, and from which end the needle goes in. */
import type { Scene } from '@tessellum/core/drawing/scene'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import { beadOf, boreOf, type Hole, hole, wayOf } from '@tessellum/core/stitch/hole'
import type { Eye } from '../piece/stage-kind'
import type { Lying } from '../piece/use-formed'

type Point = readonly [x: number, y: number, z: number]

type Drawn = Pick<Scene, 'beads'> & Lying

/** The two ends of a bead's bore as it lies, the first end first. */
export function mouthsOf({ beads, poses }: Drawn, bead: number, bore: 0 | 1): readonly [Point, Point] {
  const { lengthMm = 0, boreGapMm = 0 } = beads[bead] ?? {}
  const at = (k: number) => poses[9 * bead + k] as number
  const off = (bore === 0 ? -1 : 1) * (boreGapMm / 2)
  const end = (along: number): Point => {
    const coordinate = (k: 0 | 1 | 2) => at(k) + at(6 + k) * off + at(3 + k) * along
    return [coordinate(0), coordinate(1), coordinate(2)]
  }
  return [end(-lengthMm / 2), end(lengthMm / 2)]
}

/** Where the middle of a bead's bore is seen. */
export function middleOf(drawn: Drawn, bead: number, eye: Eye, bore: 0 | 1 = 0): readonly [x: number, y: number] {
  const [a, b] = mouthsOf(drawn, bead, bore)
  return eye.project([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2])
}

/** Where the needle comes out of a hole. */
export const exitPoint = (drawn: Drawn, h: Hole): Point => mouthsOf(drawn, beadOf(h), boreOf(h))[wayOf(h) === 1 ? 1 : 0]

const apart = ([ax, ay, az]: Point, [bx, by, bz]: Point) => Math.hypot(ax - bx, ay - by, az - bz)

/**
 * The last place of the piece itself that the thread has come out of: beads still on the needle lie nowhere yet.
 *
 * @param before the last hole that the piece as it is drawn has passed
 */
export function lastExit(drawn: Drawn, passes: readonly HandPass[], before: Hole | undefined): Point | undefined {
  const last = passes.findLast((pass) => pass.type === 'pass' && beadOf(pass.hole) < drawn.beads.length)
  const h = last?.type === 'pass' ? last.hole : before
  return h === undefined ? undefined : exitPoint(drawn, h)
}

export interface Click {
  readonly bead: number
  /** Where, in CSS pixels. */
  readonly at: readonly [x: number, y: number]
  /** From the farther end. */
  readonly otherWay: boolean
}

/** The hole that is meant by a click on a bead of the piece, and how far the thread would go through open space to it, mm. */
export function holeClicked(
  drawn: Drawn,
  { bead, at, otherWay }: Click,
  eye: Eye,
  from: Point | undefined,
): { readonly hole: Hole; readonly gapMm: number } {
  const bore = boreClicked(drawn, bead, at, eye)
  const [first, second] = mouthsOf(drawn, bead, bore)
  const nearFirst = from === undefined || apart(from, first) <= apart(from, second)
  const way = nearFirst === !otherWay ? 1 : -1
  return { hole: hole(bead, bore, way), gapMm: from ? apart(from, way === 1 ? first : second) : 0 }
}

function boreClicked(drawn: Drawn, bead: number, [x, y]: Click['at'], eye: Eye): 0 | 1 {
  if (drawn.beads[bead]?.bores !== 2) return 0
  const off = (bore: 0 | 1) => {
    const [mx, my] = middleOf(drawn, bead, eye, bore)
    return Math.hypot(mx - x, my - y)
  }
  return off(1) < off(0) ? 1 : 0
}

/**
 * A bead that the hand itself has picked up: one of the last few is gone back through, as a strand is past its end; one farther back is passed
 * again the same way, which closes a loop.
 *
 * @param beads there before the hand began
 */
export function ownHole(passes: readonly HandPass[], beads: number, bead: number, otherWay: boolean): Hole {
  const picked = passes.filter(({ type }) => type === 'pick').length
  const pick = passes.filter((pass) => pass.type === 'pick')[bead - beads]
  const back = beads + picked - 1 - bead <= nearEnd
  return hole(bead, pick?.type === 'pick' ? pick.bore : 0, back === otherWay ? 1 : -1)
}

const nearEnd = 3
