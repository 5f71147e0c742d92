/**
 * Lists of beads as short as the notation lets them be: `3A B 3A B` is `(3A B) x 2`. Of equally short ones the one that repeats least deeply.
 */

/** Longer lists are only looked through for one period of the whole, and for runs. */
const longest = 160

interface Short {
  readonly text: string
  readonly tokens: number
  /** It needs brackets round it before it can be repeated, or stand beside others. */
  readonly joined: boolean
}

/**
 * A run as it is strung: `A A B` to `2A B`.
 *
 * @param items letters, or anything else that stands in a list as it is (`>base[3]`, `<2A`, `T:2`)
 */
export const shortRun = (items: readonly string[]): string => shortest(items, asRun).text

/** A run as one stitch of a round, where a bracket that stands alone would be several stitches. */
export function shortStitch(items: readonly string[]): string {
  const { text, joined } = shortest(items, asRun)
  return !joined && text.startsWith('(') ? byRuns(items, asRun).text : text
}

/**
 * The stitches of a round, each as its own list: `A`, `A`, `-` to `A x 2, -`.
 */
export const shortStitches = (stitches: readonly string[]): string => shortest(stitches, asStitches).text

/** How a stretch of the same thing is said, and how different things stand beside each other. */
interface Way {
  same(item: string, times: number): Short
  beside(a: Short, b: Short): Short
  repeated(what: Short, times: number): Short
  /** Tokens between two things that stand beside each other. */
  readonly between: number
}

/** A bracket, `x` and a number. */
const toRepeat = 3

const asRun: Way = {
  same: (item, times) =>
    times === 1
      ? { text: item, tokens: 1, joined: false }
      : counts(item)
        ? { text: `${times}${item}`, tokens: 2, joined: false }
        : { text: `(${item}) x ${times}`, tokens: 4, joined: false },
  beside: (a, b) => ({ text: `${a.text} ${b.text}`, tokens: a.tokens + b.tokens, joined: true }),
  repeated: (what, times) => ({ text: `(${what.text}) x ${times}`, tokens: what.tokens + toRepeat, joined: false }),
  between: 0,
}

const asStitches: Way = {
  same: (item, times) => ({
    text: times === 1 ? item : `${item} x ${times}`,
    tokens: tokensOf(item) + (times === 1 ? 0 : 2),
    joined: false,
  }),
  beside: (a, b) => ({ text: `${a.text}, ${b.text}`, tokens: a.tokens + b.tokens + 1, joined: true }),
  repeated: (what, times) => ({ text: `(${what.text}) x ${times}`, tokens: what.tokens + toRepeat, joined: false }),
  between: 1,
}

/** A letter alone takes a number before it. */
const counts = (item: string) => /^[A-Z][A-Za-z]*$/.test(item)

const tokensOf = (item: string) => item.match(/[A-Za-z]+|\d+|[^\sA-Za-z\d]/g)?.length ?? 1

function shortest(items: readonly string[], way: Way): Short {
  if (items.length === 0) return { text: '', tokens: 0, joined: false }
  if (items.length <= longest) return byStretches(items, way)
  const period = periodOf(items)
  if (period < items.length && period <= longest) {
    const times = items.length / period
    const once = shortest(items.slice(0, period), way)
    return period === 1 ? way.same(items[0] as string, times) : way.repeated(once, times)
  }
  return byRuns(items, way)
}

/** The least number of items that, again and again, make up the whole. */
export function periodOf(items: readonly string[]): number {
  for (let period = 1; period <= items.length / 2; period++)
    if (items.length % period === 0 && items.every((item, i) => item === items[i % period])) return period
  return items.length
}

function byRuns(items: readonly string[], way: Way): Short {
  const runs: Short[] = []
  for (let from = 0; from < items.length; ) {
    let to = from + 1
    while (items[to] === items[from]) to++
    runs.push(way.same(items[from] as string, to - from))
    from = to
  }
  return runs.reduce((all, run) => way.beside(all, run))
}

/** Every stretch from its shorter ones: said once, side by side, or as repeats of a part of it. */
function byStretches(items: readonly string[], way: Way): Short {
  const n = items.length
  const known: Short[][] = Array.from({ length: n }, () => [])
  const at = (from: number, length: number) => known[from]?.[length] as Short
  const same = sameFrom(items)
  for (let length = 1; length <= n; length++)
    for (let from = 0; from + length <= n; from++) {
      let best: Short | undefined
      const offer = (tokens: number, make: () => Short) => {
        if (best === undefined || tokens < best.tokens) best = make()
      }
      if (length === 1 || (same[from + 1]?.[from] ?? 0) >= length - 1) {
        const run = way.same(items[from] as string, length)
        offer(run.tokens, () => run)
      } else {
        // Where it makes no difference a run of the same is not cut in two.
        for (const cut of [false, true])
          for (let first = 1; first < length; first++) {
            if ((items[from + first - 1] === items[from + first]) !== cut) continue
            const [a, b] = [at(from, first), at(from + first, length - first)]
            offer(a.tokens + b.tokens + way.between, () => way.beside(a, b))
          }
        for (let period = 2; period <= length / 2; period++)
          if (length % period === 0 && (same[from + period]?.[from] ?? 0) >= length - period) {
            const once = at(from, period)
            offer(once.tokens + toRepeat, () => way.repeated(once, length / period))
          }
      }
      const row = known[from] as Short[]
      row[length] = best ?? way.same(items[from] as string, 1)
    }
  return at(0, n)
}

/** How many items from one place on are the same as those from another, earlier one. */
function sameFrom(items: readonly string[]): Uint16Array[] {
  const n = items.length
  const same = Array.from({ length: n + 1 }, () => new Uint16Array(n + 1))
  for (let a = n - 1; a >= 0; a--)
    for (let b = a - 1; b >= 0; b--)
      if (items[a] === items[b]) (same[a] as Uint16Array)[b] = (same[a + 1]?.[b + 1] ?? 0) + 1
  return same
}
