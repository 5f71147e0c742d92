/** Beads that push each other apart where they are nearer than they reach. */
import {
  at,
  centre,
  centreRod,
  centreShare,
  crosses,
  crossingTable,
  Floats,
  farthest,
  framed,
  given,
  hole,
  left,
  lengths,
  lobes,
  onPoints,
  pairs,
  push,
  reachTable,
  shapeOfCentre,
  toAlong,
  toWide,
  turn,
  wide,
  wideTurn,
} from './columns'
import { pow } from './host'
import { followPairs, pairCount } from './pairs'

const pointsOfFrame = 4
const reachSteps = 128
/** Numbers of a shape's table. */
const tableSize = (reachSteps + 2) * 2

/** Given: a direction; how far the other bead lies across, 0 along and 1 at a right angle; one over how far apart; and a force. */
const wayX = 0
const wayY = 1
const wayZ = 2
const acrossOther = 3
const overApart = 4
const pushing = 5

/** Left: the reach, how it changes with the cosines to the hole and across the bores, and what it gains toward a bead that lies quite across. */
const reached = 0
const slopeAlong = 1
const slopeWide = 2
const gain = 3

/** The contact centres, from the points, and the pairs of them that may touch. */
export function followCentres(count: i32): void {
  for (let i = 0; i < count; i++) {
    const rod = centreRod[i]
    const p = 6 * rod
    const n = 3 * i
    const by = 1 / lengths[rod]
    const shape = shapeOfCentre[i]
    if (framed[shape]) {
      for (let c = 0; c < 3; c++) {
        let middleAt: f64 = 0
        let alongAt: f64 = 0
        let wideAt: f64 = 0
        for (let k = 0; k < pointsOfFrame; k++) {
          const x = at[p + 3 * k + c]
          middleAt += x
          alongAt += toAlong[4 * shape + k] * x
          wideAt += toWide[4 * shape + k] * x
        }
        centre[n + c] = middleAt / pointsOfFrame + lobes[6 * i] * alongAt + lobes[6 * i + 1] * wideAt
        hole[n + c] = alongAt
        wide[n + c] = wideAt
      }
      continue
    }
    const t = centreShare[i]
    for (let c = 0; c < 3; c++) {
      const a = at[p + c]
      const b = at[p + 3 + c]
      centre[n + c] = a + (b - a) * t
      hole[n + c] = (b - a) * by
    }
  }
  followPairs(count)
}

/** The energy of beads that press each other, for a stiffness of one twice as much; what pushes and turns their centres is added up. */
export function pressBeads(stiffness: f64): f64 {
  let energy: f64 = 0
  for (let k = 0; k < pairCount; k++) {
    const i = pairs[2 * k]
    const j = pairs[2 * k + 1]
    const a = 3 * i
    const b = 3 * j
    const dx = centre[b] - centre[a]
    const dy = centre[b + 1] - centre[a + 1]
    const dz = centre[b + 2] - centre[a + 2]
    const squared = dx * dx + dy * dy + dz * dz
    const most = farthest[i] + farthest[j]
    if (squared >= most * most) continue
    const apart = Math.sqrt(squared)
    const by = apart > 1e-9 ? 1 / apart : 0
    const ux = dx * by
    const uy = dy * by
    const uz = by > 0 ? dz * by : 1
    const dot = aim(a, b, ux, uy, uz)
    reach(i)
    const first = left[reached]
    const firstAlong = left[slopeAlong]
    const firstWide = left[slopeWide]
    const firstGain = left[gain]
    reach(j)
    const over = first + left[reached] - apart
    if (over <= 0) continue
    energy += over * over
    const force = stiffness * over
    given[overApart] = by
    given[pushing] = force * firstAlong
    if (firstAlong !== 0) lean(hole, turn, a, a, b)
    given[pushing] = force * firstWide
    if (firstWide !== 0) lean(wide, wideTurn, a, a, b)
    given[pushing] = force * left[slopeAlong]
    if (left[slopeAlong] !== 0) lean(hole, turn, b, a, b)
    given[pushing] = force * left[slopeWide]
    if (left[slopeWide] !== 0) lean(wide, wideTurn, b, a, b)
    const twist = -2 * dot * force * (firstGain + left[gain])
    if (twist !== 0)
      for (let c = 0; c < 3; c++) {
        turn[a + c] = turn[a + c] + twist * hole[b + c]
        turn[b + c] = turn[b + c] + twist * hole[a + c]
      }
    push[a] = push[a] + ux * force
    push[a + 1] = push[a + 1] + uy * force
    push[a + 2] = push[a + 2] + uz * force
    push[b] = push[b] - ux * force
    push[b + 1] = push[b + 1] - uy * force
    push[b + 2] = push[b + 2] - uz * force
  }
  return energy
}

/** How much nearer a pair of centres is than they reach, in mm. */
export function overOf(pair: i32): f64 {
  const i = pairs[2 * pair]
  const j = pairs[2 * pair + 1]
  const a = 3 * i
  const b = 3 * j
  const dx = centre[b] - centre[a]
  const dy = centre[b + 1] - centre[a + 1]
  const dz = centre[b + 2] - centre[a + 2]
  const apart = max(Math.sqrt(dx * dx + dy * dy + dz * dz), 1e-9)
  aim(a, b, dx / apart, dy / apart, dz / apart)
  reach(i)
  const first = left[reached]
  reach(j)
  return first + left[reached] - apart
}

/** Gives the way from one centre to another, and answers how far their holes lie the same way. */
function aim(a: i32, b: i32, x: f64, y: f64, z: f64): f64 {
  const dot = hole[a] * hole[b] + hole[a + 1] * hole[b + 1] + hole[a + 2] * hole[b + 2]
  given[wayX] = x
  given[wayY] = y
  given[wayZ] = z
  given[acrossOther] = 1 - dot * dot
  return dot
}

/** How far a bead reaches from a contact centre in a direction, toward something that is no bead. */
export function reachToward(i: i32, x: f64, y: f64, z: f64): f64 {
  given[wayX] = x
  given[wayY] = y
  given[wayZ] = z
  given[acrossOther] = 0
  reach(i)
  return left[reached]
}

/** How the reach that was asked for last changes with the cosine to the hole. */
export function slopeOfReach(): f64 {
  return left[slopeAlong]
}

/** A reach that changes with its direction turns its bead, whose centre is at n, and moves both centres, at a and b, sideways. */
function lean(ways: Floats, turns: Floats, n: i32, a: i32, b: i32): void {
  const ux = given[wayX]
  const uy = given[wayY]
  const uz = given[wayZ]
  const force = given[pushing]
  const ax = ways[n]
  const ay = ways[n + 1]
  const az = ways[n + 2]
  const c = ux * ax + uy * ay + uz * az
  turns[n] = turns[n] + force * ux
  turns[n + 1] = turns[n + 1] + force * uy
  turns[n + 2] = turns[n + 2] + force * uz
  const g = force * given[overApart]
  const sx = g * (ax - c * ux)
  const sy = g * (ay - c * uy)
  const sz = g * (az - c * uz)
  push[b] = push[b] + sx
  push[b + 1] = push[b + 1] + sy
  push[b + 2] = push[b + 2] + sz
  push[a] = push[a] - sx
  push[a + 1] = push[a + 1] - sy
  push[a + 2] = push[a + 2] - sz
}

/** How far a bead reaches from a contact centre in the direction that is given; what it finds is in `left`. */
function reach(i: i32): void {
  const n = 3 * i
  const c = given[wayX] * hole[n] + given[wayY] * hole[n + 1] + given[wayZ] * hole[n + 2]
  const shape = shapeOfCentre[i]
  if (framed[shape]) {
    reachOfLobe(i, c)
    return
  }
  const across = given[acrossOther]
  const step = min<f64>(1, c * c) * reachSteps
  const low = <i32>step
  const t = step - low
  // Hermite's cubic, so that the slope has no steps either.
  const place = tableSize * shape + 2 * low
  const from = reachTable[place]
  const rise = reachTable[place + 2] - from
  const first = reachTable[place + 1]
  const last = reachTable[place + 3]
  const second = 3 * rise - 2 * first - last
  const third = first + last - 2 * rise
  const beside = from + t * (first + t * (second + t * third))
  const slope = first + t * (2 * second + 3 * t * third)
  left[slopeWide] = 0
  if (across === 0 || !crosses[shape]) {
    left[slopeAlong] = 2 * c * reachSteps * slope
    left[gain] = 0
    left[reached] = beside
    return
  }
  const from2 = crossingTable[place]
  const rise2 = crossingTable[place + 2] - from2
  const first2 = crossingTable[place + 1]
  const last2 = crossingTable[place + 3]
  const second2 = 3 * rise2 - 2 * first2 - last2
  const third2 = first2 + last2 - 2 * rise2
  const slope2 = first2 + t * (2 * second2 + 3 * t * third2)
  const more = from2 + t * (first2 + t * (second2 + t * third2)) - beside
  left[gain] = more
  left[slopeAlong] = 2 * c * reachSteps * (slope + (slope2 - slope) * across)
  left[reached] = beside + more * across
}

/**
 * The same of a bead with a frame.
 *
 * @param c the cosine to its hole
 */
function reachOfLobe(i: i32, c: f64): void {
  const o = 6 * i
  const halfLength = lobes[o + 2]
  const halfWide = lobes[o + 3]
  const halfThick = lobes[o + 4]
  const p = lobes[o + 5]
  const n = 3 * i
  const w = given[wayX] * wide[n] + given[wayY] * wide[n + 1] + given[wayZ] * wide[n + 2]
  const t = Math.sqrt(max<f64>(0, 1 - c * c - w * w))
  const fc = pow(Math.abs(c) / halfLength, p)
  const fw = pow(Math.abs(w) / halfWide, p)
  const ft = pow(t / halfThick, p)
  const f = fc + fw + ft
  const reach = pow(f, -1 / p)
  const share = -reach / f
  const thick = t > 1e-6 ? ft / (t * t) : 0
  left[reached] = reach
  left[gain] = 0
  left[slopeAlong] = share * ((Math.abs(c) > 1e-9 ? fc / c : 0) - thick * c)
  left[slopeWide] = share * ((Math.abs(w) > 1e-9 ? fw / w : 0) - thick * w)
}

/** From contact centres to the points they lie between. */
export function pushPoints(count: i32): void {
  for (let i = 0; i < count; i++) {
    const rod = centreRod[i]
    const p = 6 * rod
    const n = 3 * i
    const by = 1 / lengths[rod]
    const shape = shapeOfCentre[i]
    if (framed[shape]) {
      for (let c = 0; c < 3; c++) {
        const f = push[n + c]
        const t = turn[n + c] + lobes[6 * i] * f
        const w = wideTurn[n + c] + lobes[6 * i + 1] * f
        for (let k = 0; k < pointsOfFrame; k++)
          onPoints[p + 3 * k + c] =
            onPoints[p + 3 * k + c] + f / pointsOfFrame + t * toAlong[4 * shape + k] + w * toWide[4 * shape + k]
      }
      continue
    }
    const share = centreShare[i]
    for (let c = 0; c < 3; c++) {
      const each = push[n + c]
      const t = turn[n + c] * by
      onPoints[p + c] = onPoints[p + c] + each * (1 - share) - t
      onPoints[p + 3 + c] = onPoints[p + 3 + c] + each * share + t
    }
  }
}
