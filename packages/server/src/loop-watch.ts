import { closeSync, openSync, readSync } from 'node:fs'

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
  let holds: number[] = []
  const timer = setInterval(() => {
    const now = worked()
    holds.push(now - last)
    last = now
  }, 1)
  timer.unref()
  return {
    /** The longest since it was asked last, and the 999th of a thousand. */
    read() {
      const sorted = holds.sort((a, b) => a - b)
      holds = []
      return { longest: sorted.at(-1) ?? 0, most: sorted[Math.floor(0.999 * sorted.length)] ?? 0 }
    },
    end() {
      clearInterval(timer)
      closeSync(file)
    },
  }
}
