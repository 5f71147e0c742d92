/**
 * How a piece is shown: a piece on a stone faces as its stone does. Any other lies with its thinnest way to the eye and its longest across;
 * it is begun anticlockwise, what was laid over other work lies on the face that was in hand, and what was worked last to the right.
 * A piece that is told to hang from somewhere has that at its top.
 */
import { EigenvalueDecomposition, Matrix } from 'ml-matrix'
import { beadOf, entryOf } from '../stitch/hole'
import { hasFront, laidAsTold } from './face'
import { centreOf, type Piece, pointAt } from './piece'
import { smallestBox } from './smallest-box'
import { add, cross, dot, minus, scaled, type Turn, type Vector } from './vector'

/** A point that the thread comes to, and the face in hand then: 1 the front, -1 the back. */
export interface Come {
  readonly point: number
  readonly face: number
  /** It is picked up there. */
  readonly fresh: boolean
}

/** Where each pass of the thread goes in. */
export function wayOf(piece: Piece): Come[] {
  const { work } = piece
  const faces = work.faces()
  return Array.from({ length: work.passes }, (_, pass) => ({
    point: pointAt(piece, entryOf(work.holeAt(pass))),
    face: faces[pass] as number,
    fresh: work.isNew(pass),
  }))
}

/**
 * @param at x, y, z by point
 * @param way its points in the order of the thread
 */
export function turnOf(at: Float64Array, way: readonly Come[]): { turn: Turn; middle: Vector } {
  const middle = meanOf(at)
  const spread = Matrix.zeros(3, 3)
  for (let i = 0; i < at.length; i += 3)
    for (let a = 0; a < 3; a++)
      for (let b = 0; b < 3; b++)
        spread.set(
          a,
          b,
          spread.get(a, b) +
            ((at[i + a] as number) - (middle[a] as number)) * ((at[i + b] as number) - (middle[b] as number)),
        )
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(spread, { assumeSymmetric: true })
  const ways = [0, 1, 2]
    .sort((a, b) => (realEigenvalues[b] as number) - (realEigenvalues[a] as number))
    .map((column) => eigenvectorMatrix.getColumn(column) as unknown as Vector) as [Vector, Vector, Vector]
  let [later, across] = [0, 0]
  const place = ({ point }: Come) => ways.map((way) => along(at, 3 * point, way, middle)) as unknown as Vector
  let depth = 0
  for (const [k, come] of way.entries()) {
    const now = place(come)
    // Above what is there already, or beneath it.
    if (k > 0) later += come.face * (k * now[2] - depth)
    across += (k - way.length / 2) * now[0]
    depth += now[2]
  }
  // Up to where it first comes back to a bead, a piece goes round one way: a strip's units go round by turns.
  const back = way.findIndex(({ fresh }, k) => k > 1 && !fresh)
  const round = roundOf(way.slice(0, back < 0 ? way.length : back + 1).map(place))
  const flipX = across < 0 ? -1 : 1
  const flipY = round * flipX < 0 ? -1 : 1
  const flipZ = later < 0 ? -1 : 1
  return { middle, turn: [scaled(ways[0], flipX), scaled(ways[1], flipY), scaled(ways[2], flipZ)] }
}

/** Twice the area that a closed way goes round, anticlockwise. */
function roundOf(way: readonly Vector[]): number {
  const [first] = way
  if (!first) return 0
  let round = 0
  for (const [k, at] of way.entries()) {
    const next = way[k + 1] ?? first
    round += (at[0] - first[0]) * (next[1] - first[1]) - (at[1] - first[1]) * (next[0] - first[0])
  }
  return round
}

/** Turns points in place. */
export function applyTurn(at: Float64Array, { turn, middle }: { turn: Turn; middle: Vector }): void {
  for (let i = 0; i < at.length; i += 3) {
    const v = turn.map((way) => along(at, i, way, middle))
    for (let c = 0; c < 3; c++) at[i + c] = v[c] as number
  }
}

/** Turns a piece that has come to rest, its stones with it; it is never mirrored. */
export function turnToEye(piece: Piece): void {
  const { at, solids, work } = piece
  const [first] = solids
  let found: { turn: Turn; middle: Vector }
  if (first) {
    const front = Array.from(first.front) as unknown as Vector
    const right = Array.from(first.right) as unknown as Vector
    found = { middle: Array.from(first.at) as unknown as Vector, turn: [right, cross(front, right), front] }
    if (first.round) found = { ...found, turn: loopUp(piece, found) }
  } else {
    found = turnOf(at, wayOf(piece))
    // What was laid on two faces was laid toward and away from the eye, however thick that has made it.
    const [long, wide, thin] = found.turn
    if (work.hasTwoFaces && Math.abs(wide[2]) > Math.abs(thin[2])) found = { ...found, turn: [long, thin, wide] }
    const [x, y, z] = found.turn
    // Of its two faces the one that is worked anticlockwise; what lies in front is as it has come to lie.
    if (dot(cross(x, y), z) < 0) found = { ...found, turn: [x, y, scaled(z, -1)] }
    const keepsFace = work.hasTwoFaces || hasFront(piece, middlesOf(piece, found))
    const [across, up, deep] = smallestBox(piece, found, keepsFace)
    found = { ...found, turn: [across, up, deep] }
    // What was laid over the work lies beneath it so: it is seen from its back.
    if (laidAsTold(piece, middlesOf(piece, found)) < (work.hasTwoFaces ? 0 : -0.5))
      found = { ...found, turn: [scaled(across, -1), up, scaled(deep, -1)] }
  }
  if (work.hangsFrom.length > 0) found = { ...found, turn: hanging(piece, found) }
  applyTurn(at, found)
  for (const solid of solids) {
    applyTurn(solid.at, found)
    applyTurn(solid.front, { ...found, middle: [0, 0, 0] })
    applyTurn(solid.right, { ...found, middle: [0, 0, 0] })
  }
}

/** x, y, z of each bead's middle, turned. */
function middlesOf(piece: Piece, found: { turn: Turn; middle: Vector }): Float64Array {
  const middles = new Float64Array(3 * piece.work.beads)
  for (let bead = 0; bead < piece.work.beads; bead++) {
    const centre = centreOf(piece, bead)
    for (const [k, way] of found.turn.entries()) middles[3 * bead + k] = dot(minus(centre, found.middle), way)
  }
  return middles
}

/** As it is worn: what it hangs from straight above its middle. It goes on facing as it did. */
function hanging(piece: Piece, { turn: [x, y, z], middle }: { turn: Turn; middle: Vector }): Turn {
  const { work } = piece
  let [a, b] = [0, 0]
  for (const bead of work.hangsFrom) {
    const off = minus(centreOf(piece, bead), middle)
    a += dot(off, x) / work.hangsFrom.length
    b += dot(off, y) / work.hangsFrom.length
  }
  const far = Math.hypot(a, b)
  if (far < 1e-6) return [x, y, z]
  const up = add(scaled(x, a / far), scaled(y, b / far))
  return [cross(up, z), up, z]
}

/** A round piece has no top of its own: its first loop goes there, as it will hang. */
function loopUp({ at, work, rodOf }: Piece, { turn: [x, y, z], middle }: { turn: Turn; middle: Vector }): Turn {
  for (let pass = 0; pass < work.passes; pass++) {
    const bead = beadOf(work.holeAt(pass))
    if (!work.isNew(pass) || work.seat(bead).course >= 0) continue
    const p = 6 * (rodOf[bead] as number)
    const [a, b] = [along(at, p, x, middle), along(at, p, y, middle)]
    const far = Math.hypot(a, b)
    if (far < 1e-6) break
    const up: Vector = [0, 1, 2].map((c) => ((x[c] as number) * a + (y[c] as number) * b) / far) as unknown as Vector
    return [cross(up, z), up, z]
  }
  return [x, y, z]
}

const along = (at: Float64Array, i: number, way: Vector, middle: Vector): number =>
  ((at[i] as number) - middle[0]) * way[0] +
  ((at[i + 1] as number) - middle[1]) * way[1] +
  ((at[i + 2] as number) - middle[2]) * way[2]

function meanOf(at: Float64Array): Vector {
  const sum = [0, 0, 0]
  for (let i = 0; i < at.length; i++) sum[i % 3] = (sum[i % 3] as number) + (at[i] as number)
  return sum.map((each) => each / (at.length / 3)) as unknown as Vector
}
