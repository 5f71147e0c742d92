/** What is picked up for the strands of a fringe: once where all are alike, otherwise by number. */
export function strandsTold<Strand>(strands: readonly Strand[], tell: (strand: Strand) => string): string {
  const told = strands.map(tell)
  const [first = ''] = told
  return told.every((each) => each === first) ? first : told.map((each, i) => `${i + 1}: ${each}`).join('; ')
}
