import { closeSync, openSync, readSync } from 'node:fs'

/** Upper bounds of what is counted together, in milliseconds. */
const bounds = [1, 2, 5, 10, 20, 30, 40, 50, 75, 100, 200, 500, 1000, Number.POSITIVE_INFINITY]

/** How often the loop was held for so long, and the longest of all, in milliseconds. */
export interface Holds {
  readonly longest: number
  readonly counts: readonly { readonly most: number; readonly times: number }[]
}

/**
 * How long the event loop is held at a time, in milliseconds of this thread's own work: what a busy machine takes from it in between does not count.
 * For tests and the soak; it reads a counter of the kernel's every millisecond.
 */
export function watchLoop() {
  const file = openSync(`/proc/self/task/${process.pid}/schedstat`, 'r')
  const bytes = Buffer.alloc(64)
  const worked = () => {
    const length = readSync(file, bytes, 0, bytes.length, 0)
    return Number(bytes.subarray(0, length).toString().split(' ')[0]) / 1e6
  }
  let last = worked()
  let longest = 0
  let times = bounds.map(() => 0)
  const timer = setInterval(() => {
    const now = worked()
    const held = now - last
    last = now
    longest = Math.max(longest, held)
    const at = bounds.findIndex((bound) => held <= bound)
    times[at] = (times[at] ?? 0) + 1
  }, 1)
  timer.unref()
  return {
    /** Since it was asked last. */
    read(): Holds {
      const holds = { longest, counts: bounds.map((most, i) => ({ most, times: times[i] ?? 0 })) }
      longest = 0
      times = bounds.map(() => 0)
      return holds
    },
    end() {
      clearInterval(timer)
      closeSync(file)
    },
  }
}
