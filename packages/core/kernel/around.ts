/** What surrounds a piece: the mat it lies on, and the room that its beads give each other while it unfolds. */
import { at, onPoints } from './columns'
import { log } from './host'

const matMm: f64 = 0.5
/** So many beads are kept away from by all. */
const keptAwayFrom = 30

/**
 * Work lies on a mat.
 *
 * @param weight what a bead is drawn down by, as a share of the thread's tension
 */
export function lieOnMat(rods: i32, weight: f64): f64 {
  const end = 6 * rods
  const square = matMm * matMm
  let middle: f64 = 0
  for (let p = 2; p < end; p += 3) middle += at[p]
  middle /= <f64>(2 * rods)
  let energy: f64 = 0
  let all: f64 = 0
  for (let p = 2; p < end; p += 3) {
    const off = at[p] - middle
    const length = Math.sqrt(off * off + square)
    energy += length - matMm
    const by = (weight / 2) * (off / length)
    all += by
    onPoints[p] = onPoints[p] + by
  }
  const each = all / <f64>(2 * rods)
  for (let p = 2; p < end; p += 3) onPoints[p] = onPoints[p] - each
  return (energy * weight) / 2
}

/**
 * Beads keep away from each other from afar, so that a tube comes out round and a sheet even.
 *
 * @param strength what a bead is pushed with, a millimetre away, by all the others together
 */
export function giveRoom(rods: i32, strength: f64): f64 {
  const stride = max(1, rods / keptAwayFrom)
  const by = strength / <f64>((rods + stride - 1) / stride)
  let energy: f64 = 0
  for (let k = 0; k < rods; k += stride) {
    const p = 6 * k
    const x = at[p]
    const y = at[p + 1]
    const z = at[p + 2]
    let px: f64 = 0
    let py: f64 = 0
    let pz: f64 = 0
    // One logarithm of a product is cheaper than one of each factor.
    let product: f64 = 1
    for (let i = 0; i < rods; i++) {
      if (i === k) continue
      const q = 6 * i
      const dx = at[q] - x
      const dy = at[q + 1] - y
      const dz = at[q + 2] - z
      const squared = dx * dx + dy * dy + dz * dz + 1
      product *= squared
      if (product > 1e200) {
        energy -= by * 0.5 * log(product)
        product = 1
      }
      const f = by / squared
      onPoints[q] = onPoints[q] - f * dx
      onPoints[q + 1] = onPoints[q + 1] - f * dy
      onPoints[q + 2] = onPoints[q + 2] - f * dz
      px += f * dx
      py += f * dy
      pz += f * dz
    }
    energy -= by * 0.5 * log(product)
    onPoints[p] = onPoints[p] + px
    onPoints[p + 1] = onPoints[p + 1] + py
    onPoints[p + 2] = onPoints[p + 2] + pz
  }
  return energy
}
