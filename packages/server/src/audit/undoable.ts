/** What was closed by mistake can be opened again for a day. */
import { type SQL, sql } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import { HttpProblem } from '../problem'

/** @param overAt when it was closed; null while it is open */
export const stillUndoable = (overAt: PgColumn): SQL<boolean> =>
  sql<boolean>`coalesce(${overAt} > now() - interval '1 day', false)`

export function refuseOld({ undoable }: { readonly undoable: boolean }): void {
  if (!undoable)
    throw new HttpProblem(409, 'wrong-state', 'It is open, or was closed more than a day ago.', {
      hint: 'Reload the page.',
    })
}
