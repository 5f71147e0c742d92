/**
 * Where a piece begins: unfolded from its thread alone, whatever its lines were called. Only what lies against a stone or a wire ring begins
 * where its rows say, since the thread does not tell what it goes round.
 */
import type { Mm } from '../measure/units'
import { type Piece, slackMm } from './piece'
import type { Seat } from './seat'
import type { Frame, Shape } from './shape'
import { applyTurn, turnOf, wayOf } from './turn-to-eye'
import { type Beginning, fitOf, type Held, unfold } from './unfold'
import type { Vector } from './vector'
import { components, type Graph, graphOf } from './ways'

/** Thread between two beads takes this much of what its stitch keeps, once it is drawn up. */
const drawnUp = 0.6
/** From a bead that stands to those it stands on. */
const standsOnMm: Mm = 1
/** The cosine of an angle at which thread turns back. */
const turnsBack = -0.5
/** Between pieces that have nothing in common. */
const besideMm: Mm = 3

/** Of a few repeats of a long piece, which way is long is plain. */
const mostOfPart = 2

/** So many beginnings are tried of a piece of so many points: as many more as the piece is small, and a flat one. */
function beginnings(points: number, isPart: boolean): number {
  const spatial = Math.max(1, Math.min(isPart ? mostOfPart : 10, Math.round(3000 / points)))
  return spatial > 1 ? spatial + 1 : 1
}

/**
 * Lays out the points of a piece, and its stones and rings with them.
 *
 * @param isPart it is a few repeats of a longer piece
 * @returns its beginnings; the piece lies as in the first
 */
export function start(piece: Piece, seats: readonly Seat[], isPart = false): Beginning[] {
  const graph = graphOfPiece(piece)
  const way = wayOf(piece)
  const count = seats.length > 0 ? 1 : beginnings(graph.points, isPart)
  const laid = Array.from({ length: count }, () => new Float64Array(piece.at.length))
  const right = laid.map(() => Number.NEGATIVE_INFINITY)
  for (const set of components(graph)) {
    const own = new Map(set.map((point, i) => [point, i]))
    const edges: number[] = []
    for (const point of set)
      for (let e = graph.starts[point] as number; e < (graph.starts[point + 1] as number); e++) {
        const other = graph.to[e] as number
        if (other > point) edges.push(own.get(point) as number, own.get(other) as number, graph.mm[e] as number)
      }
    const held = seats
      .filter(({ points }) => own.has(points[0] as number))
      .map(({ points, places }): Held => ({ points: points.map((point) => own.get(point) as number), places }))
    const ownWay = way.flatMap((come) => {
      const point = own.get(come.point)
      return point === undefined ? [] : [{ ...come, point }]
    })
    const unfolded = unfold(graphOf(set.length, edges), held, count)
    for (let k = 0; k < count; k++) {
      const at = Float64Array.from(beginningOf(unfolded, k, count).at)
      if (held[0]) faceAs(at, held[0])
      else applyTurn(at, turnOf(at, ownWay))
      let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
      for (let i = 0; i < at.length; i += 3) {
        low = Math.min(low, at[i] as number)
        high = Math.max(high, at[i] as number)
      }
      const by = right[k] === Number.NEGATIVE_INFINITY ? 0 : (right[k] as number) + besideMm - low
      right[k] = high + by
      for (const [i, point] of set.entries())
        for (let c = 0; c < 3; c++)
          (laid[k] as Float64Array)[3 * point + c] = (at[3 * i + c] as number) + (c === 0 ? by : 0)
    }
  }
  piece.at.set(laid[0] as Float64Array)
  layOut(piece, seats)
  return laid.map((at, k) => ({ at, isFlat: count > 1 && k === count - 1 }))
}

/** A part with fewer beginnings than were asked for begins as it did before; flat, where all do. */
const beginningOf = (of: readonly Beginning[], k: number, count: number): Beginning =>
  (k === count - 1 ? of.at(-1) : of[Math.min(k, Math.max(0, of.length - 2))]) as Beginning

/** What follows from where the points of a piece begin: where its stones lie, and where its thread turns back. */
export function layOut(piece: Piece, seats: readonly Seat[]): void {
  for (const seat of seats) layIn(seat, piece.at)
  keepRoomToTurn(piece)
}

/** Where thread turns back, the two beads lie side by side: it keeps the width of them. */
export function keepRoomToTurn({ at, threads, natural, lengths, rodOf, shapes, shapeOf, work }: Piece): void {
  const across = new Float64Array(lengths.length)
  for (let bead = 0; bead < work.beads; bead++)
    across.fill((shapes[shapeOf[bead] as number] as Shape).bead.acrossMm, rodOf[bead], rodOf[bead + 1])
  for (let t = 0; t < natural.length; t++) {
    const a = threads[2 * t] as number
    const b = threads[2 * t + 1] as number
    let dot = 0
    for (let c = 0; c < 3; c++)
      dot +=
        ((at[3 * a + c] as number) - (at[3 * (a ^ 1) + c] as number)) *
        ((at[3 * (b ^ 1) + c] as number) - (at[3 * b + c] as number))
    if (dot > turnsBack * (lengths[a >> 1] as number) * (lengths[b >> 1] as number)) continue
    const side = ((across[a >> 1] as number) + (across[b >> 1] as number)) / 2
    natural[t] = Math.max(natural[t] as number, side)
  }
}

/** The stone or ring of a seat, where its rows have come to lie. */
function layIn(seat: Seat, at: Float64Array): void {
  const { solid } = seat
  if (!solid) return
  const { from, to, turn } = fitOf(at, seat)
  for (let c = 0; c < 3; c++) {
    solid.front[c] = turn.get(c, 2)
    solid.right[c] = turn.get(c, 0)
    solid.at[c] = (to[c] as number) - [0, 1, 2].reduce((sum, k) => sum + turn.get(c, k) * (from[k] as number), 0)
  }
}

/** Turns points so that a held set lies as its own places do. */
function faceAs(at: Float64Array, held: Held): void {
  const { turn, to } = fitOf(at, held)
  const way = (column: number) => [0, 1, 2].map((c) => turn.get(c, column)) as unknown as Vector
  applyTurn(at, { turn: [way(0), way(1), way(2)], middle: to as unknown as Vector })
}

/** What holds the two bores of a bead together: each end of one to the nearest of the other. */
function bracesOf({ points }: Frame): [number, number, Mm][] {
  const apart = (a: number, b: number) =>
    Math.hypot(
      (points[2 * b] as number) - (points[2 * a] as number),
      (points[2 * b + 1] as number) - (points[2 * a + 1] as number),
    )
  return [0, 1].flatMap((a) => {
    const nearest = Math.min(apart(a, 2), apart(a, 3))
    return [2, 3].flatMap((b): [number, number, Mm][] => (apart(a, b) <= nearest + 1e-9 ? [[a, b, nearest]] : []))
  })
}

/** The ends of a piece's bores, as far apart as bores and drawn-up threads say. */
export const graphOfPiece = (piece: Piece): Graph => graphOf(2 * piece.rods, edgesOf(piece))

function edgesOf(piece: Piece): number[] {
  const { rods, lengths, rodOf, shapes, shapeOf, threads, natural, within, ties, work } = piece
  const edges: number[] = []
  for (let rod = 0; rod < rods; rod++) edges.push(2 * rod, 2 * rod + 1, lengths[rod] as number)
  for (let bead = 0; bead < work.beads; bead++) {
    const rod = rodOf[bead] as number
    const { frame } = shapes[shapeOf[bead] as number] as Shape
    for (const [a, b, mm] of frame ? bracesOf(frame) : []) edges.push(2 * rod + a, 2 * rod + b, mm)
  }
  for (let t = 0; t < natural.length; t++)
    if (!within[t])
      edges.push(threads[2 * t] as number, threads[2 * t + 1] as number, drawnUp * (natural[t] as number) + slackMm)
  for (let t = 0; t < ties.length; t += 3)
    for (const under of [ties[t + 1] as number, ties[t + 2] as number]) edges.push(ties[t] as number, under, standsOnMm)
  return edges
}
