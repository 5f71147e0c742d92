/**
 * What thread does: it draws the ends it joins together, holds what stands on it, and keeps beads whose ends it draws together in line.
 * Each function adds its slope to `onPoints` and answers its energy. One unit of energy is a millimetre of thread at the usual tension.
 */
import { at, bends, lengths, natural, onPoints, pulls, rims, threads, ties, within } from './columns'

/** Thread that is drawn up to within this hardly pulls any more: it has gone into the holes. */
const drawnUpMm: f64 = 0.05
/**
 * Thread pulls with the same force however wide a gap is. What has been drawn up to its stitch does not slip back: beyond that it pulls so
 * much harder a millimetre, so that gaps come out even and the columns of a peyote tube do not slide along each other.
 */
const held: f64 = 5
/** Beads whose flat ends are drawn together lie in line: bending them costs this share of the ends' radius for the angle. */
const bendShare: f64 = 1
/** Up to so much of an angle they give more easily. */
const bentBy: f64 = 0.3
/** From here on (2 - 2 cos of the angle: 2 at a right angle, 4 when turned back) thread is turning back, and from there nothing bends any more. */
const turning: f64 = 2.4
const turnedBack: f64 = 3.4
const atTurning: f64 = Math.sqrt(turning + bentBy * bentBy)

/** @param count of threads */
export function pullThreads(count: i32, tension: f64): f64 {
  const square = drawnUpMm * drawnUpMm
  let energy: f64 = 0
  for (let t = 0; t < count; t++) {
    if (within[t]) continue
    const a = 3 * threads[2 * t]
    const b = 3 * threads[2 * t + 1]
    const dx = at[b] - at[a]
    const dy = at[b + 1] - at[a + 1]
    const dz = at[b + 2] - at[a + 2]
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz + square)
    const over = max<f64>(0, length - natural[t])
    const pull = pulls[t]
    energy += pull * (length - drawnUpMm) + (held / 2) * over * over
    const by = (tension * (pull + held * over)) / length
    onPoints[a] = onPoints[a] - dx * by
    onPoints[a + 1] = onPoints[a + 1] - dy * by
    onPoints[a + 2] = onPoints[a + 2] - dz * by
    onPoints[b] = onPoints[b] + dx * by
    onPoints[b + 1] = onPoints[b + 1] + dy * by
    onPoints[b + 2] = onPoints[b + 2] + dz * by
  }
  return energy * tension
}

/**
 * A bead that stands on the thread between two others is drawn to the middle between them.
 *
 * @param count of ties
 */
export function pullTies(count: i32, tension: f64): f64 {
  const square = drawnUpMm * drawnUpMm
  let energy: f64 = 0
  for (let t = 0; t < count; t++) {
    const p = 3 * ties[3 * t]
    const a = 3 * ties[3 * t + 1]
    const b = 3 * ties[3 * t + 2]
    const dx = (at[a] + at[b]) / 2 - at[p]
    const dy = (at[a + 1] + at[b + 1]) / 2 - at[p + 1]
    const dz = (at[a + 2] + at[b + 2]) / 2 - at[p + 2]
    const length = Math.sqrt(dx * dx + dy * dy + dz * dz + square)
    energy += length - drawnUpMm
    const by = tension / length
    for (let c = 0; c < 3; c++) {
      const d = (c === 0 ? dx : c === 1 ? dy : dz) * by
      onPoints[p + c] = onPoints[p + c] - d
      onPoints[a + c] = onPoints[a + c] + d / 2
      onPoints[b + c] = onPoints[b + c] + d / 2
    }
  }
  return energy * tension
}

/**
 * Thread that turns from bead to bead resists: what nothing else decides lies in even curves.
 *
 * @param count of bends
 */
export function resistBending(count: i32, tension: f64): f64 {
  let energy: f64 = 0
  for (let t = 0; t < count; t++) {
    const a = bends[2 * t]
    const b = bends[2 * t + 1]
    // Out of one bore, from q to p, and into the other, from r to s.
    const p = 3 * a
    const q = 3 * (a ^ 1)
    const r = 3 * b
    const s = 3 * (b ^ 1)
    const by = 1 / (lengths[a >> 1] * lengths[b >> 1])
    const outX = at[p] - at[q]
    const outY = at[p + 1] - at[q + 1]
    const outZ = at[p + 2] - at[q + 2]
    const inX = at[s] - at[r]
    const inY = at[s + 1] - at[r + 1]
    const inZ = at[s + 2] - at[r + 2]
    const turned = 2 - 2 * (outX * inX + outY * inY + outZ * inZ) * by
    const rim = bendShare * rims[t]
    // The chord of the angle between the two, which levels off.
    const past = min(turned, turnedBack) - turning
    const chord = past > 0 ? atTurning : Math.sqrt(max<f64>(0, turned) + bentBy * bentBy)
    const level = past > 0 ? 1 - past / (turnedBack - turning) : 1
    energy += rim * (chord - bentBy + (past > 0 ? (past * (1 + level)) / 4 / atTurning : 0))
    const k = (tension * rim * level * by) / chord
    onPoints[p] = onPoints[p] - k * inX
    onPoints[p + 1] = onPoints[p + 1] - k * inY
    onPoints[p + 2] = onPoints[p + 2] - k * inZ
    onPoints[q] = onPoints[q] + k * inX
    onPoints[q + 1] = onPoints[q + 1] + k * inY
    onPoints[q + 2] = onPoints[q + 2] + k * inZ
    onPoints[s] = onPoints[s] - k * outX
    onPoints[s + 1] = onPoints[s + 1] - k * outY
    onPoints[s + 2] = onPoints[s + 2] - k * outZ
    onPoints[r] = onPoints[r] + k * outX
    onPoints[r + 1] = onPoints[r + 1] + k * outY
    onPoints[r + 2] = onPoints[r + 2] + k * outZ
  }
  return energy * tension
}
