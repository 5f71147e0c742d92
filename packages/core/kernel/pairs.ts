/** Which beads may touch: contact centres near each other, found on a uniform grid and kept until something has moved too far. */
import { cells, centre, centreBead, farthest, foundAt, isLarge, large, order, pairs, starts } from './columns'

/** How many pairs were found. */
export let pairCount = 0
/** Of the grid: what a place's hash is masked with, how wide a cell is in mm, and how many beads are too large for it. */
let mask = 0
let cell: f64 = 0
let larges = 0
/** Beads may come this much nearer before the pairs are looked for again. */
let margin: f64 = 0

export function layGrid(buckets: i32, cellMm: f64, tooLarge: i32, marginMm: f64): void {
  mask = buckets - 1
  cell = cellMm
  larges = tooLarge
  margin = marginMm
  pairCount = 0
}

/** Finds the pairs again where a centre has moved too far. */
export function followPairs(count: i32): void {
  const most = (margin / 2) * (margin / 2)
  for (let i = 0; i < 3 * count; i += 3) {
    const dx = centre[i] - foundAt[i]
    const dy = centre[i + 1] - foundAt[i + 1]
    const dz = centre[i + 2] - foundAt[i + 2]
    if (!(dx * dx + dy * dy + dz * dz <= most)) {
      find(count)
      return
    }
  }
}

function find(count: i32): void {
  for (let i = 0; i < 3 * count; i++) foundAt[i] = centre[i]
  pairCount = 0
  for (let b = 0; b <= mask + 1; b++) starts[b] = 0
  for (let i = 0; i < count; i++) {
    const x = <i32>Math.floor(centre[3 * i] / cell)
    const y = <i32>Math.floor(centre[3 * i + 1] / cell)
    const z = <i32>Math.floor(centre[3 * i + 2] / cell)
    cells[3 * i] = x
    cells[3 * i + 1] = y
    cells[3 * i + 2] = z
    if (isLarge[i]) continue
    const bucket = bucketOf(x, y, z) + 1
    starts[bucket] = starts[bucket] + 1
  }
  for (let b = 1; b <= mask + 1; b++) starts[b] = starts[b] + starts[b - 1]
  // Filled from the back of each bucket, so that within it beads lie in order.
  for (let i = count - 1; i >= 0; i--) {
    if (isLarge[i]) continue
    const bucket = bucketOf(cells[3 * i], cells[3 * i + 1], cells[3 * i + 2]) + 1
    const place = starts[bucket] - 1
    starts[bucket] = place
    order[place] = i
  }
  // What was the end of each bucket has become its beginning; the next bucket's beginning is its end.
  for (let i = 0; i < count; i++) {
    if (isLarge[i]) continue
    const cx = cells[3 * i]
    const cy = cells[3 * i + 1]
    const cz = cells[3 * i + 2]
    const first = pairCount
    for (let x = cx - 1; x <= cx + 1; x++)
      for (let y = cy - 1; y <= cy + 1; y++)
        for (let z = cz - 1; z <= cz + 1; z++) {
          const bucket = bucketOf(x, y, z) + 1
          const end = bucket <= mask ? starts[bucket + 1] : count - larges
          for (let k = starts[bucket]; k < end; k++) {
            const j = order[k]
            if (j <= i || cells[3 * j] !== x || cells[3 * j + 1] !== y || cells[3 * j + 2] !== z) continue
            consider(i, j)
          }
        }
    inOrder(first)
  }
  for (let l = 0; l < larges; l++) {
    const i = large[l]
    for (let j = 0; j < count; j++) if (j !== i && !(isLarge[j] && j < i)) consider(i, j)
  }
}

/** A bead's partners by their numbers, not by where they lie: the same piece turned about is worked through in the same order. */
function inOrder(first: i32): void {
  for (let k = first + 1; k < pairCount; k++) {
    const j = pairs[2 * k + 1]
    let to = k
    for (; to > first && pairs[2 * to - 1] > j; to--) pairs[2 * to + 1] = pairs[2 * to - 1]
    pairs[2 * to + 1] = j
  }
}

function consider(i: i32, j: i32): void {
  if (centreBead[i] === centreBead[j]) return
  const dx = centre[3 * i] - centre[3 * j]
  const dy = centre[3 * i + 1] - centre[3 * j + 1]
  const dz = centre[3 * i + 2] - centre[3 * j + 2]
  const near = farthest[i] + farthest[j] + margin
  if (dx * dx + dy * dy + dz * dz > near * near) return
  const end = changetype<usize>(pairs) + ((<usize>(pairCount + 1)) << 3)
  // The pairs lie last: there is room for more of them as soon as there is more memory.
  if (end > (<usize>memory.size()) << 16 && memory.grow(16) < 0) unreachable()
  pairs[2 * pairCount] = i
  pairs[2 * pairCount + 1] = j
  pairCount++
}

function bucketOf(x: i32, y: i32, z: i32): i32 {
  return ((x * 73856093) ^ (y * 19349663) ^ (z * 83492791)) & mask
}
