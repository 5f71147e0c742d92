/** The word a person most likely meant: least edits, about a third of it at most; of one letter none. */
export function nearest(typed: string, known: Iterable<string>): string | undefined {
  let best: string | undefined
  let least = Math.floor((typed.length + 1) / 3) + 1
  for (const word of known) {
    const edits = editDistance(typed.toLowerCase().slice(0, 40), word.toLowerCase())
    if (edits < least) {
      least = edits
      best = word
    }
  }
  return best
}

/** Insertions, deletions, exchanges and swaps of neighbours (optimal string alignment). */
function editDistance(a: string, b: string): number {
  const rows: number[][] = Array.from({ length: a.length + 1 }, (_, i) => [i])
  for (let j = 1; j <= b.length; j++) (rows[0] as number[])[j] = j
  for (let i = 1; i <= a.length; i++) {
    for (let j = 1; j <= b.length; j++) {
      const row = rows[i] as number[]
      const above = rows[i - 1] as number[]
      let cost = Math.min(
        (above[j] as number) + 1,
        (row[j - 1] as number) + 1,
        (above[j - 1] as number) + (a[i - 1] === b[j - 1] ? 0 : 1),
      )
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) {
        cost = Math.min(cost, ((rows[i - 2] as number[])[j - 2] as number) + 1)
      }
      row[j] = cost
    }
  }
  return (rows[a.length] as number[])[b.length] as number
}
