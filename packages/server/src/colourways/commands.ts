import type { Colourway, saveColourway } from '@tessellum/contract/colourways'
import { eq } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { notFound } from '../problem'
import { colourway } from '../schema/colourways'
import { addVersion, explain, findColourway, makeColourway, renameColourway, withoutVersionId } from './store'

export const beginColourway = (
  db: Database,
  patternId: number,
  { name, choices }: z.output<typeof saveColourway>,
  caller: Caller,
): Promise<Colourway> =>
  runOnce(db, caller, `colourway of ${patternId}`, async (tx) => {
    const id = await makeColourway(tx, patternId, name, choices, caller.id)
    await logActivity(tx, caller.id, `began the colourway ${name}`, `/patterns/${patternId}/colours`)
    return withoutVersionId(await findColourway(tx, id))
  }).catch((error: unknown) => {
    throw explain(error, name)
  })

/** Keeps its next version; batches keep the one that they were planned with. */
export const changeColourway = (
  db: Database,
  id: number,
  { name, choices }: z.output<typeof saveColourway>,
  caller: Caller,
): Promise<Colourway> =>
  runOnce(db, caller, `colourway ${id}`, async (tx) => {
    const [row] = await tx.select().from(colourway).where(eq(colourway.id, id)).for('update')
    if (!row) throw notFound('colourway')
    if (row.name !== name) await renameColourway(tx, id, name)
    await addVersion(tx, id, choices, caller.id)
    await logActivity(tx, caller.id, `changed the colourway ${name}`, `/patterns/${row.patternId}/colours`)
    return withoutVersionId(await findColourway(tx, id))
  }).catch((error: unknown) => {
    throw explain(error, name)
  })
