/** So many beads of one role, one after the other. */
export interface Run {
  readonly role: string
  readonly count: number
}

export function runsOf(roles: readonly string[]): Run[] {
  const runs: { role: string; count: number }[] = []
  for (const role of roles) {
    const last = runs[runs.length - 1]
    if (last?.role === role) last.count++
    else runs.push({ role, count: 1 })
  }
  return runs
}

/** Equal neighbours in a list, with how many there are. */
export function equalRuns(values: readonly number[]): { value: number; times: number }[] {
  const runs: { value: number; times: number }[] = []
  for (const value of values) {
    const last = runs[runs.length - 1]
    if (last?.value === value) last.times++
    else runs.push({ value, times: 1 })
  }
  return runs
}

export const beadsIn = (runs: readonly Run[]): number => runs.reduce((sum, { count }) => sum + count, 0)

/** The first half of what is picked up, the longer where it is odd, and the rest. */
export function halves(runs: readonly Run[]): [first: Run[], second: Run[]] {
  const roles = runs.flatMap(({ role, count }) => Array<string>(count).fill(role))
  const half = Math.ceil(roles.length / 2)
  return [runsOf(roles.slice(0, half)), runsOf(roles.slice(half))]
}
