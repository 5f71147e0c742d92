/** What was closed by mistake can be opened again for a day. */
import { type SQL, type SQLWrapper, sql } from 'drizzle-orm'
import { HttpProblem } from '../problem'

/** @param overAt when it was closed; null while it is open */
export const stillUndoable = (overAt: SQLWrapper): SQL<boolean> =>
  sql<boolean>`coalesce(${overAt} > now() - interval '1 day', false)`

export function refuseOld({ undoable }: { readonly undoable: boolean }): void {
  if (!undoable)
    throw new HttpProblem(409, 'wrong-state', 'This was done more than a day ago, or has been undone already.', {
      hint: 'Reload the page.',
    })
}
