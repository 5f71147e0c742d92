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
