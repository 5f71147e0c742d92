/** One goal after the other, each kept at its best while the next is sought. */
import type { Solve } from './allocation'
import { type Programme, written } from './programme'

export interface Proof {
  proven: boolean
  gap: number
}

export type Goal = Pick<Programme, 'goal' | 'objective'>

const slack = 1e-5

/** @returns what the last goal that was reached has come to; empty where none was */
export function inOrder(
  goals: readonly Goal[],
  base: Pick<Programme, 'rows' | 'whole' | 'binary' | 'most'>,
  solve: Solve,
  proof: Proof,
): Readonly<Record<string, number>> {
  const rows = [...base.rows]
  let values: Readonly<Record<string, number>> = {}
  for (const { goal, objective } of goals) {
    const found = solve(written({ ...base, goal, objective, rows }))
    if (found.status === 'infeasible') {
      // What was reached before cannot be kept: rounding, and no proof.
      proof.proven = false
      break
    }
    if (found.status === 'limit') {
      proof.proven = false
      proof.gap = Math.max(proof.gap, found.gap)
      // What was found before still stands, where the limit left nothing better.
      if (Object.keys(found.values).length > 0) values = found.values
      break
    }
    values = found.values
    // Of whole numbers the best is one; of others a little less is asked, for rounding.
    const reached = base.most ? found.objective - (goal === 'max' ? slack : -slack) : Math.round(found.objective)
    rows.push({ terms: objective, sign: goal === 'max' ? '>=' : '<=', of: reached })
  }
  return values
}
