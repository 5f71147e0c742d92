/**
 * The numbers that the loops work on: columns that whoever runs them has laid out in this memory, by the names that stand here. An index
 * beyond a column's end is not noticed.
 */
export type Floats = StaticArray<f64>
export type Ints = StaticArray<i32>
export type Bytes = StaticArray<u8>

/** Where columns may begin: what is before is the compiler's own. */
export function firstFree(): usize {
  return __heap_base
}

// Points, rods and threads: see `Piece`.
export let at = changetype<Floats>(0)
export let lengths = changetype<Floats>(0)
export let threads = changetype<Ints>(0)
export let natural = changetype<Floats>(0)
export let pulls = changetype<Floats>(0)
export let within = changetype<Bytes>(0)
export let ties = changetype<Ints>(0)
export let bends = changetype<Ints>(0)
export let rims = changetype<Floats>(0)
export let rodOf = changetype<Ints>(0)
export let shapeOf = changetype<Ints>(0)
/** What pushes each point. */
export let onPoints = changetype<Floats>(0)

// By shape: see `Shape`.
export let framed = changetype<Bytes>(0)
/** Eight numbers: along and across the wide way, of each of its four points. */
export let framePoints = changetype<Floats>(0)
/** Four each: what each point counts for along and across. */
export let toAlong = changetype<Floats>(0)
export let toWide = changetype<Floats>(0)
export let reachTable = changetype<Floats>(0)
export let crossingTable = changetype<Floats>(0)
/** 1 where a bead that lies across is kept off by something else. */
export let crosses = changetype<Bytes>(0)

// By body: see `Bodies`.
export let middle = changetype<Floats>(0)
export let along = changetype<Floats>(0)
export let across = changetype<Floats>(0)
export let arm = changetype<Floats>(0)

// By contact centre: see `Centres`.
export let centreRod = changetype<Ints>(0)
export let centreShare = changetype<Floats>(0)
export let centreBead = changetype<Ints>(0)
/** The shape of its bead. */
export let shapeOfCentre = changetype<Ints>(0)
export let farthest = changetype<Floats>(0)
/** Six numbers: along, wide, half length, half width, half thickness, exponent. */
export let lobes = changetype<Floats>(0)
/** x, y, z of each, and what pushes it; the way of its hole, and what turns that; the same of the wide way across. */
export let centre = changetype<Floats>(0)
export let push = changetype<Floats>(0)
export let hole = changetype<Floats>(0)
export let turn = changetype<Floats>(0)
export let wide = changetype<Floats>(0)
export let wideTurn = changetype<Floats>(0)

// Pairs of contact centres: see `Pairs`.
export let foundAt = changetype<Floats>(0)
export let cells = changetype<Ints>(0)
export let order = changetype<Ints>(0)
export let starts = changetype<Ints>(0)
export let large = changetype<Ints>(0)
export let isLarge = changetype<Bytes>(0)
/** Two numbers a pair; the last column, so that it can grow. */
export let pairs = changetype<Ints>(0)

/** What `reach` is given and what it leaves. */
export let given = changetype<Floats>(0)
export let left = changetype<Floats>(0)

// What the minimiser knows: see `Minimiser`.
export let slope = changetype<Floats>(0)
export let next = changetype<Floats>(0)
export let step = changetype<Floats>(0)
/** One after the other. */
export let moves = changetype<Floats>(0)
export let changes = changetype<Floats>(0)
export let weights = changetype<Floats>(0)
export let shares = changetype<Floats>(0)
/** What the last move has in common with its change, and the square of the change. */
export let learnt = changetype<Floats>(0)

// What stress majorization goes by: see `unfold`.
export let terms = changetype<Ints>(0)
export let wanted = changetype<Floats>(0)
export let termWeights = changetype<Floats>(0)
