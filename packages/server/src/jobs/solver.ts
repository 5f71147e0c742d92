/** The HiGHS solver behind the core's allocation: programme after programme, within one limit for all. */
import type { Solve } from '@tessellum/core/allocation/allocation'
import loadHighs from 'highs'

/** Loaded once for each thread; anew after it has come apart. */
let loaded: ReturnType<typeof loadHighs> | undefined

/** @param limitSeconds over all that is asked of it; what is found by then is given with its gap */
export async function solver(limitSeconds = 8): Promise<Solve> {
  loaded ??= loadHighs()
  const highs = await loaded
  const until = performance.now() + limitSeconds * 1000
  return (programme) => {
    const left = (until - performance.now()) / 1000
    if (left <= 0) return { status: 'limit', objective: 0, gap: 1, values: {} }
    let found: ReturnType<typeof highs.solve>
    const ask = (presolve: 'on' | 'off') =>
      highs.solve(programme, {
        time_limit: left,
        output_flag: false,
        presolve,
        mip_rel_gap: 0,
        // Everything is whole, so that what is nearer than this is the best there is.
        mip_abs_gap: 0.9,
      })
    try {
      found = ask('on')
    } catch {
      // Presolving comes apart at some programmes that are solved without it.
      try {
        found = ask('off')
      } catch (error) {
        loaded = undefined
        throw error
      }
    }
    if (found.Status === 'Infeasible') return { status: 'infeasible', objective: 0, gap: 0, values: {} }
    const values: Record<string, number> = {}
    for (const [name, column] of Object.entries(found.Columns))
      if ('Primal' in column && Number.isFinite(column.Primal)) values[name] = column.Primal
    const objective = found.ObjectiveValue
    if (found.Status === 'Optimal') return { status: 'optimal', objective, gap: 0, values }
    // Without a feasible point the columns are those of a relaxation, and no filling.
    const whole =
      Number.isFinite(objective) && Object.values(values).every((each) => Math.abs(each - Math.round(each)) < 1e-6)
    return { status: 'limit', objective: whole ? objective : 0, gap: 1, values: whole ? values : {} }
  }
}
