/**
 * What thread does: it draws the ends it joins together, holds what stands on it, and keeps beads whose ends it draws together in line.
 * Each function adds its slope to `onPoints` and answers its energy. One unit of energy is a millimetre of thread at the usual tension.
 */
import type { Mm } from '../../measure/units'
import type { Piece } from '../piece'

/** Thread that is drawn up to within this hardly pulls any more: it has gone into the holes. */
const drawnUpMm: Mm = 0.05
/**
 * Thread pulls with the same force however wide a gap is. What has been drawn up to its stitch does not slip back: beyond that it pulls so
 * much harder a millimetre, so that gaps come out even and the columns of a peyote tube do not slide along each other.
 */
const held = 5
/** Beads whose flat ends are drawn together lie in line: bending them costs this share of the ends' radius for the angle. */
const bendShare = 1
/** Up to so much of an angle they give more easily. */
const bentBy = 0.3
/** From here on (2 - 2 cos of the angle: 2 at a right angle, 4 when turned back) thread is turning back, and from there nothing bends any more. */
const turning = 2.4
const turnedBack = 3.4
const atTurning = Math.sqrt(turning + bentBy * bentBy)

export function pullThreads(
  { at, threads, within, natural, pulls }: Piece,
  tension: number,
  onPoints: Float64Array,
): number {
  const square = drawnUpMm * drawnUpMm
  let energy = 0
  for (let t = 0; t < threads.length; t += 2) {
    if (within[t >> 1]) continue
    const a = 3 * (threads[t] as number)
    const b = 3 * (threads[t + 1] as number)
    const dx = (at[b] as number) - (at[a] as number)
    const dy = (at[b + 1] as number) - (at[a + 1] as number)
    const dz = (at[b + 2] as number) - (at[a + 2] as number)
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz + square)
    const over = Math.max(0, length - (natural[t >> 1] as number))
    const pull = pulls[t >> 1] as number
    energy += pull * (length - drawnUpMm) + (held / 2) * over * over
    const by = (tension * (pull + held * over)) / length
    onPoints[a] = (onPoints[a] as number) - dx * by
    onPoints[a + 1] = (onPoints[a + 1] as number) - dy * by
    onPoints[a + 2] = (onPoints[a + 2] as number) - dz * by
    onPoints[b] = (onPoints[b] as number) + dx * by
    onPoints[b + 1] = (onPoints[b + 1] as number) + dy * by
    onPoints[b + 2] = (onPoints[b + 2] as number) + dz * by
  }
  return energy * tension
}

/** A bead that stands on the thread between two others is drawn to the middle between them. */
export function pullTies({ at, ties }: Piece, tension: number, onPoints: Float64Array): number {
  const square = drawnUpMm * drawnUpMm
  let energy = 0
  for (let t = 0; t < ties.length; t += 3) {
    const p = 3 * (ties[t] as number)
    const a = 3 * (ties[t + 1] as number)
    const b = 3 * (ties[t + 2] as number)
    const dx = ((at[a] as number) + (at[b] as number)) / 2 - (at[p] as number)
    const dy = ((at[a + 1] as number) + (at[b + 1] as number)) / 2 - (at[p + 1] as number)
    const dz = ((at[a + 2] as number) + (at[b + 2] as number)) / 2 - (at[p + 2] as number)
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz + square)
    energy += length - drawnUpMm
    const by = tension / length
    for (let c = 0; c < 3; c++) {
      const d = (c === 0 ? dx : c === 1 ? dy : dz) * by
      onPoints[p + c] = (onPoints[p + c] as number) - d
      onPoints[a + c] = (onPoints[a + c] as number) + d / 2
      onPoints[b + c] = (onPoints[b + c] as number) + d / 2
    }
  }
  return energy * tension
}

/** Thread that turns from bead to bead resists: what nothing else decides lies in even curves. */
export function resistBending({ at, bends, lengths, rims }: Piece, tension: number, onPoints: Float64Array): number {
  let energy = 0
  for (let t = 0; t < bends.length; t += 2) {
    const a = bends[t] as number
    const b = bends[t + 1] as number
    // Out of one bore, from q to p, and into the other, from r to s.
    const p = 3 * a
    const q = 3 * (a ^ 1)
    const r = 3 * b
    const s = 3 * (b ^ 1)
    const by = 1 / ((lengths[a >> 1] as number) * (lengths[b >> 1] as number))
    const outX = (at[p] as number) - (at[q] as number)
    const outY = (at[p + 1] as number) - (at[q + 1] as number)
    const outZ = (at[p + 2] as number) - (at[q + 2] as number)
    const inX = (at[s] as number) - (at[r] as number)
    const inY = (at[s + 1] as number) - (at[r + 1] as number)
    const inZ = (at[s + 2] as number) - (at[r + 2] as number)
    const turned = 2 - 2 * (outX * inX + outY * inY + outZ * inZ) * by
    const rim = bendShare * (rims[t >> 1] as number)
    // The chord of the angle between the two, which levels off.
    const past = Math.min(turned, turnedBack) - turning
    const chord = past > 0 ? atTurning : Math.sqrt(Math.max(0, turned) + bentBy * bentBy)
    const level = past > 0 ? 1 - past / (turnedBack - turning) : 1
    energy += rim * (chord - bentBy + (past > 0 ? (past * (1 + level)) / 4 / atTurning : 0))
    const k = (tension * rim * level * by) / chord
    onPoints[p] = (onPoints[p] as number) - k * inX
    onPoints[p + 1] = (onPoints[p + 1] as number) - k * inY
    onPoints[p + 2] = (onPoints[p + 2] as number) - k * inZ
    onPoints[q] = (onPoints[q] as number) + k * inX
    onPoints[q + 1] = (onPoints[q + 1] as number) + k * inY
    onPoints[q + 2] = (onPoints[q + 2] as number) + k * inZ
    onPoints[s] = (onPoints[s] as number) - k * outX
    onPoints[s + 1] = (onPoints[s + 1] as number) - k * outY
    onPoints[s + 2] = (onPoints[s + 2] as number) - k * outZ
    onPoints[r] = (onPoints[r] as number) + k * outX
    onPoints[r + 1] = (onPoints[r + 1] as number) + k * outY
    onPoints[r + 2] = (onPoints[r + 2] as number) + k * outZ
  }
  return energy * tension
}
