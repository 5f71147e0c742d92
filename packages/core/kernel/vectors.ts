/** Limited-memory quasi-Newton steps. Every vector has an even number of places, and is summed up in two sums: those at even places, and the rest. */
import { changes, Floats, learnt, moves, next, shares, slope, step, weights } from './columns'

/** The size of a float, as a power of two. */
const size: usize = 3

/** Downhill, as the last moves have shown the ground to curve: two ways through what is known (Nocedal and Wright, algorithm 7.4). */
export function direct(count: i32, memory: i32, known: i32, last: i32, scale: f64): void {
  for (let i = 0; i < count; i += 2) store2(step, i, f64x2.neg(load2(slope, i)))
  let both = known > 0 ? dot(nth(moves, last, count), step, count) : 0
  for (let k = 0; k < known; k++) {
    const place = (last - k + memory) % memory
    const share = both * weights[place]
    shares[place] = share
    both = addThenDot(
      step,
      nth(changes, place, count),
      -share,
      nth(moves, (last - k - 1 + 2 * memory) % memory, count),
      count,
    )
  }
  const by = f64x2.splat(scale)
  for (let i = 0; i < count; i += 2) store2(step, i, f64x2.mul(load2(step, i), by))
  if (known > 0) both = dot(nth(changes, (last - known + 1 + memory) % memory, count), step, count)
  for (let k = known - 1; k >= 0; k--) {
    const place = (last - k + memory) % memory
    const by = shares[place] - both * weights[place]
    both = addThenDot(step, nth(moves, place, count), by, nth(changes, (last - k + 1 + memory) % memory, count), count)
  }
}

/** How far downhill the step goes. */
export function downhill(count: i32): f64 {
  return dot(step, slope, count)
}

/** The farthest that the step moves anything. */
export function largest(count: i32): f64 {
  let most = f64x2.splat(0)
  for (let i = 0; i < count; i += 2) most = f64x2.max(most, f64x2.abs(load2(step, i)))
  return max(f64x2.extract_lane(most, 0), f64x2.extract_lane(most, 1))
}

/** Takes the slope that was found, and writes the move and what it changed over the oldest. */
export function learn(count: i32, place: i32, by: f64): void {
  const move = nth(moves, place, count)
  const change = nth(changes, place, count)
  let both: f64 = 0
  let square: f64 = 0
  for (let i = 0; i < count; i++) {
    const s = step[i] * by
    const y = next[i] - slope[i]
    move[i] = s
    change[i] = y
    both += s * y
    square += y * y
    slope[i] = next[i]
  }
  learnt[0] = both
  learnt[1] = square
}

/** Adds a multiple of one vector to another, and answers what a third then has in common with it: one way through memory for both. */
function addThenDot(a: Floats, b: Floats, times: f64, c: Floats, count: i32): f64 {
  const by = f64x2.splat(times)
  let sum = f64x2.splat(0)
  for (let i = 0; i < count; i += 2) {
    const now = f64x2.add(load2(a, i), f64x2.mul(by, load2(b, i)))
    store2(a, i, now)
    sum = f64x2.add(sum, f64x2.mul(now, load2(c, i)))
  }
  return f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1)
}

function dot(a: Floats, b: Floats, count: i32): f64 {
  let sum = f64x2.splat(0)
  for (let i = 0; i < count; i += 2) sum = f64x2.add(sum, f64x2.mul(load2(a, i), load2(b, i)))
  return f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1)
}

/** One of the vectors that lie one after the other. */
function nth(vectors: Floats, place: i32, count: i32): Floats {
  return changetype<Floats>(changetype<usize>(vectors) + ((<usize>place * <usize>count) << size))
}

function load2(a: Floats, i: i32): v128 {
  return v128.load(changetype<usize>(a) + ((<usize>i) << size))
}

function store2(a: Floats, i: i32, two: v128): void {
  v128.store(changetype<usize>(a) + ((<usize>i) << size), two)
}
