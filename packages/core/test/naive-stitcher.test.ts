/**
 * Peyote, netting and right angle stitched a second way, that knows nothing of rails: peyote as columns, each with the bead on its top. What
 * is picked up and passed, in order, must be what the engine does.
 */
import fc from 'fast-check'
import { errorsIn, evaluate, passes } from './support'

/** New beads as "+7", passed ones as "7". */
type Passes = string[]

class Columns {
  readonly done: Passes = []
  private beads = 0
  private readonly top: number[][] = []

  constructor(
    count: number,
    private readonly drop: number,
  ) {
    for (let column = 0; column < count; column++) this.add(column)
  }

  add(column: number): void {
    this.top[column] = Array.from({ length: this.drop }, () => this.beads++)
    this.done.push(...(this.top[column] as number[]).map((bead) => `+${bead}`))
  }
  /** Through the beads on top of a column; those that were strung the other way round are met from their other end. */
  pass(column: number, back = false): void {
    const beads = [...(this.top[column] as number[])]
    this.done.push(...(back ? beads.reverse() : beads).map(String))
  }
}

/** To and fro over `count` columns. */
function flat(count: number, drop: number, rows: number): Passes {
  const work = new Columns(count, drop)
  for (let row = 0; row < rows; row++) {
    const back = row % 2 === 0
    const at = (step: number) => (back ? count - 1 - step : step)
    // Of an odd count the rows that come from the turned edge begin beside the bead that was turned in.
    const from = count % 2 === 1 && !back ? 1 : 0
    for (let step = from; step < count; step += 2) {
      work.add(at(step))
      // Every row goes against the one before: what it meets was strung the other way.
      if (step + 1 < count) work.pass(at(step + 1), true)
      else work.pass(at(step), true)
    }
  }
  return work.done
}

/** Round and round over `count` columns. */
function round(count: number, drop: number, rounds: number): Passes {
  const work = new Columns(count, drop)
  for (let column = 0; column < count; column++) work.pass(column)
  let at = 0
  for (let turn = 0; turn < rounds; turn++) {
    const first = at
    const stitches = count % 2 === 0 ? count / 2 : turn % 2 === 0 ? (count + 1) / 2 : (count - 1) / 2
    for (let stitch = 0; stitch < stitches; stitch++, at += 2) {
      work.add(at % count)
      work.pass((at + 1) % count)
    }
    if (count % 2 === 1) continue
    work.pass(first % count)
    at = first + 1
  }
  return work.done
}

const head = 'pattern Trial\nbead A cylinder 11/0\npart trial\n'
const engine = (text: string): Passes => {
  expect(errorsIn(evaluate(head + text))).toEqual([])
  return passes(head + text).map((pass) => pass.replace('<', ''))
}
const counts = fc.record({
  count: fc.integer({ min: 2, max: 24 }),
  drop: fc.integer({ min: 1, max: 3 }),
  times: fc.integer({ min: 1, max: 9 }),
})

test('flat peyote, even and odd, of one bead a stitch and more', () => {
  fc.assert(
    fc.property(counts, ({ count, drop, times }) => {
      const text = `string ${count * drop}A\n${`row ${drop}A\n`.repeat(times)}`
      expect(engine(text)).toEqual(flat(count, drop, times))
    }),
    { numRuns: 400 },
  )
})

test('peyote in the round, even with a step up and odd as a spiral, of one bead a stitch and more', () => {
  fc.assert(
    fc.property(counts, ({ count, drop, times }) => {
      const columns = Math.max(3, count)
      const text = `ring ${columns * drop}A\n${`round ${drop}A\n`.repeat(times)}`
      expect(engine(text)).toEqual(round(columns, drop, times))
    }),
    { numRuns: 400 },
  )
})

test('netting into every k-th bead, and right-angle strips', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 2, max: 6 }),
      fc.integer({ min: 2, max: 7 }),
      (arcs, each, run) => {
        const ring = arcs * each < 3 ? 3 * each : arcs * each
        const done = engine(`ring ${ring}A\nround ${run}A into every ${each}th bead\n`).slice(2 * ring)
        const wanted: Passes = []
        for (let arc = 0; arc < ring / each; arc++) {
          for (let bead = 0; bead < run; bead++) wanted.push(`+${ring + arc * run + bead}`)
          wanted.push(String(arc * each + each - 1))
        }
        expect(done.slice(0, wanted.length)).toEqual(wanted)
        // A unit is three new beads and one it shares; the first has four.
        expect(new Set(engine(`weave ${arcs} units of 3A\n`)).size).toBeGreaterThanOrEqual(3 * arcs + 1)
        expect(engine(`weave ${arcs} units of 3A\n`).filter((pass) => pass.startsWith('+'))).toHaveLength(3 * arcs + 1)
      },
    ),
    { numRuns: 100 },
  )
})
