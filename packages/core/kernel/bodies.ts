/** Beads and stones as rigid bodies: moved, turned, and pushed by what pushes their points. */
import {
  across,
  along,
  arm,
  at,
  Floats,
  framed,
  framePoints,
  lengths,
  middle,
  onPoints,
  rodOf,
  shapeOf,
  step,
} from './columns'

const pointsOfFrame = 4

/** Moves and turns every body by `by` times a step of six numbers each. */
export function moveBodies(bodies: i32, beads: i32, by: f64): void {
  for (let i = 0; i < bodies; i++) {
    const o = 6 * i
    const m = 3 * i
    middle[m] = middle[m] + by * step[o]
    middle[m + 1] = middle[m + 1] + by * step[o + 1]
    middle[m + 2] = middle[m + 2] + by * step[o + 2]
    const share = by / arm[i]
    const wx = step[o + 3] * share
    const wy = step[o + 4] * share
    const wz = step[o + 5] * share
    if (wx * wx + wy * wy + wz * wz < 1e-20) continue
    turn(along, m, wx, wy, wz)
    turn(across, m, wx, wy, wz)
    square(i)
  }
  placeBeads(beads)
}

/** Both ways at length one, the second square to the first. */
export function squareBodies(bodies: i32): void {
  for (let i = 0; i < bodies; i++) square(i)
}

/** The points of the beads, from how these lie. */
export function placeBeads(beads: i32): void {
  for (let bead = 0; bead < beads; bead++) {
    const rod = rodOf[bead]
    const half = lengths[rod] / 2
    const p = 6 * rod
    const shape = shapeOf[bead]
    for (let c = 0; c < 3; c++) {
      const m = middle[3 * bead + c]
      const a = along[3 * bead + c]
      if (!framed[shape]) {
        at[p + c] = m - a * half
        at[p + 3 + c] = m + a * half
        continue
      }
      const w = across[3 * bead + c]
      for (let k = 0; k < pointsOfFrame; k++)
        at[p + 3 * k + c] = m + a * framePoints[8 * shape + 2 * k] + w * framePoints[8 * shape + 2 * k + 1]
    }
  }
}

/** What pushes on points do to their beads. */
export function gatherBeads(beads: i32, out: Floats): void {
  for (let bead = 0; bead < beads; bead++) {
    let fx: f64 = 0
    let fy: f64 = 0
    let fz: f64 = 0
    let tx: f64 = 0
    let ty: f64 = 0
    let tz: f64 = 0
    const mx = middle[3 * bead]
    const my = middle[3 * bead + 1]
    const mz = middle[3 * bead + 2]
    const to = 6 * rodOf[bead + 1]
    for (let p = 6 * rodOf[bead]; p < to; p += 3) {
      const gx = onPoints[p]
      const gy = onPoints[p + 1]
      const gz = onPoints[p + 2]
      const rx = at[p] - mx
      const ry = at[p + 1] - my
      const rz = at[p + 2] - mz
      fx += gx
      fy += gy
      fz += gz
      tx += ry * gz - rz * gy
      ty += rz * gx - rx * gz
      tz += rx * gy - ry * gx
    }
    const o = 6 * bead
    const by = 1 / arm[bead]
    out[o] = fx
    out[o + 1] = fy
    out[o + 2] = fz
    out[o + 3] = tx * by
    out[o + 4] = ty * by
    out[o + 5] = tz * by
  }
}

function square(body: i32): void {
  const i = 3 * body
  if (!normalize(along, i)) along[i] = 1
  const dot = across[i] * along[i] + across[i + 1] * along[i + 1] + across[i + 2] * along[i + 2]
  for (let c = 0; c < 3; c++) across[i + c] = across[i + c] - dot * along[i + c]
  if (normalize(across, i)) return
  // Whichever lies farthest off the hole.
  const x = along[i]
  const y = along[i + 1]
  const z = along[i + 2]
  const flat = Math.abs(z) < 0.9
  across[i] = flat ? -y : 0
  across[i + 1] = flat ? x : -z
  across[i + 2] = flat ? 0 : y
  normalize(across, i)
}

/** By the rotation vector w: exactly, by Rodrigues' formula to second order, which `square` brings back to length one. */
function turn(v: Floats, i: i32, wx: f64, wy: f64, wz: f64): void {
  const x = v[i]
  const y = v[i + 1]
  const z = v[i + 2]
  const cx = wy * z - wz * y
  const cy = wz * x - wx * z
  const cz = wx * y - wy * x
  v[i] = x + cx + (wy * cz - wz * cy) / 2
  v[i + 1] = y + cy + (wz * cx - wx * cz) / 2
  v[i + 2] = z + cz + (wx * cy - wy * cx) / 2
}

function normalize(v: Floats, i: i32): bool {
  const x = v[i]
  const y = v[i + 1]
  const z = v[i + 2]
  const length = Math.sqrt(x * x + y * y + z * z)
  if (length < 1e-9) return false
  v[i] = x / length
  v[i + 1] = y / length
  v[i + 2] = z / length
  return true
}
