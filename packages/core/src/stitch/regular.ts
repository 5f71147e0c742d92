/**
 * What is worked again and again in a piece, found in its passes and not in its lines: a stretch of the thread in which every pass does, to
 * the beads just before it, what the pass one period earlier did to those before that.
 */
import { beadOf } from './hole'
import type { Work } from './work'

export interface Regular {
  /** Passes from..to repeat themselves. */
  readonly from: number
  readonly to: number
  /** Passes and beads of one period. */
  readonly passes: number
  readonly beads: number
}

/** Longer periods than this are not looked for. */
const longest = 1200

/**
 * The stretch that most beads could be left out of, if so many periods stay.
 *
 * @param keep periods of so many beads that stay
 */
export function regularIn(work: Work, keep: (beads: number) => number): Regular | undefined {
  const told = signs(work)
  const n = told.length
  const before = new Int32Array(n + 1)
  for (let pass = 0; pass < n; pass++) before[pass + 1] = (before[pass] as number) + (work.isNew(pass) ? 1 : 0)
  let best: Regular | undefined
  let most = 0
  for (let period = 1; period <= Math.min(longest, n >> 2); period++) {
    let from = 0
    for (let pass = period; pass <= n; pass++) {
      if (pass < n && told[pass] === told[pass - period]) continue
      const turns = Math.floor((pass - from) / period)
      const beads = (before[Math.min(n, from + period)] as number) - (before[from] as number)
      const saved = (turns - keep(beads)) * beads
      if (beads > 0 && saved > most * 1.02) {
        most = saved
        best = { from, to: from + turns * period, passes: period, beads }
      }
      from = pass - period + 1
    }
  }
  return best
}

/** Of each pass one number that says all of it: what is picked up, or which of the beads before it is passed, and how. */
function signs(work: Work): Int32Array {
  const told = new Int32Array(work.passes)
  const begins = new Set(work.threads)
  const numbers = new Map<string, number>()
  const faces = work.faces()
  let beads = 0
  for (let pass = 0; pass < work.passes; pass++) {
    const h = work.holeAt(pass)
    const fresh = work.isNew(pass)
    const which = fresh ? `+${work.role(beadOf(h))}` : `${beads - beadOf(h)}`
    const sign = `${which} ${h & 3} ${work.gapAt(pass)} ${faces[pass]} ${begins.has(pass)} ${fresh ? '' : work.role(beadOf(h))}`
    let number = numbers.get(sign)
    if (number === undefined) {
      number = numbers.size
      numbers.set(sign, number)
    }
    told[pass] = number
    if (fresh) beads++
  }
  return told
}
