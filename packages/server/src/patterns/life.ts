/** What becomes of a pattern beside its text: copied, renamed, described, put away, thrown away and brought back. */
import type { describePattern, renamePattern as renameBody } from '@tessellum/contract/patterns'
import { titleOf, withTitle } from '@tessellum/core/notation/title'
import { and, count, eq, inArray, lt, notExists, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import { listColourways, makeColourway } from '../colourways/store'
import type { Caller } from '../context'
import type { Database, Session } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { colourway } from '../schema/colourways'
import { pattern, patternVersion, stepWords } from '../schema/patterns'
import { sample } from '../schema/samples'
import { deletePictures } from './pictures'
import { findPattern, saveWordsOf, thrownDays, wordsOf } from './store'

type PatternRow = typeof pattern.$inferSelect

async function lockPattern(tx: Session, id: number): Promise<PatternRow> {
  const [row] = await tx.select().from(pattern).where(eq(pattern.id, id)).for('update')
  if (!row) throw notFound('pattern')
  return row
}

/** @param act answers what was done, for the audit log */
const change = (
  db: Database,
  id: number,
  kind: string,
  caller: Caller,
  act: (tx: Session, row: PatternRow) => Promise<string>,
) =>
  runOnce(db, caller, `${kind} pattern ${id}`, async (tx) => {
    const what = await act(tx, await lockPattern(tx, id))
    await logActivity(tx, caller.id, what, `/patterns/${id}`)
    return findPattern(tx, id)
  })

const set = (tx: Session, id: number, values: Partial<PatternRow>) =>
  tx.update(pattern).set(values).where(eq(pattern.id, id))

/** As a draft of its own, with the words of its steps and its colourways as they are now. */
export const copyPattern = (db: Database, id: number, caller: Caller) =>
  runOnce(db, caller, `copy pattern ${id}`, async (tx) => {
    const { title, source, tags, season } = await lockPattern(tx, id)
    const copied = withTitle(source, `Copy of ${title}`)
    const [made] = await tx
      .insert(pattern)
      .values({ title: titleOf(copied), source: copied, tags, season, savedBy: caller.id })
      .returning({ id: pattern.id })
    const { id: copyId } = made as { id: number }
    for (const words of await wordsOf(tx, id)) await saveWordsOf(tx, copyId, words)
    for (const { name, choices } of await listColourways(tx, id))
      await makeColourway(tx, copyId, name, choices, caller.id)
    await logActivity(tx, caller.id, `copied ${title}`, `/patterns/${copyId}`)
    return findPattern(tx, copyId)
  })

/** A pattern is called what its text says: the text is changed. Versions keep the name that they were kept with. */
export const renamePattern = (db: Database, id: number, { title }: z.output<typeof renameBody>, caller: Caller) =>
  change(db, id, 'rename', caller, async (tx, row) => {
    refuseThrown(row)
    const source = withTitle(row.source, title)
    await set(tx, id, {
      source,
      title: titleOf(source),
      revision: row.revision + 1,
      savedBy: caller.id,
      savedAt: new Date(),
    })
    return `renamed ${row.title} to ${titleOf(source)}`
  })

export const describe = (db: Database, id: number, given: z.output<typeof describePattern>, caller: Caller) =>
  change(db, id, 'describe', caller, async (tx, { title }) => {
    await set(tx, id, given)
    return `described ${title}`
  })

export const putAway = (db: Database, id: number, caller: Caller) =>
  change(db, id, 'put away', caller, async (tx, { title, putAwayAt }) => {
    if (!putAwayAt) await set(tx, id, { putAwayAt: new Date() })
    return `put ${title} away`
  })

export const takeOut = (db: Database, id: number, caller: Caller) =>
  change(db, id, 'take out', caller, async (tx, { title }) => {
    await set(tx, id, { putAwayAt: null })
    return `took ${title} out again`
  })

export const throwAway = (db: Database, id: number, caller: Caller) =>
  change(db, id, 'throw away', caller, async (tx, row) => {
    refuseThrown(row)
    const [kept] = await tx.select({ versions: count() }).from(patternVersion).where(eq(patternVersion.patternId, id))
    if (kept && kept.versions > 0)
      throw new HttpProblem(409, 'has-versions', `${row.title} has a version that was kept, so it stays.`, {
        hint: 'Put it away instead: it is out of the way then, and kits and prints of it can still be followed.',
      })
    await set(tx, id, { thrownAwayAt: new Date() })
    return `threw away ${row.title}`
  })

export const bringBack = (db: Database, id: number, caller: Caller) =>
  change(db, id, 'bring back', caller, async (tx, { title, thrownAwayAt }) => {
    if (thrownAwayAt && Date.now() - thrownAwayAt.getTime() > thrownDays * 86_400_000)
      throw new HttpProblem(409, 'too-late', `${title} was thrown away more than ${thrownDays} days ago.`)
    await set(tx, id, { thrownAwayAt: null })
    return `brought ${title} back`
  })

function refuseThrown({ title, thrownAwayAt }: PatternRow): void {
  if (thrownAwayAt)
    throw new HttpProblem(409, 'thrown-away', `${title} has been thrown away.`, { hint: 'Bring it back first.' })
}

/** Deletes what was thrown away so long ago that it is not brought back any more. What was coloured or stitched is on record, and stays out of sight. */
export async function deleteThrown(tx: Session): Promise<void> {
  const old = await tx
    .select({ id: pattern.id })
    .from(pattern)
    .where(
      and(
        lt(pattern.thrownAwayAt, sql`now() - make_interval(days => ${thrownDays})`),
        notExists(tx.select().from(colourway).where(eq(colourway.patternId, pattern.id))),
        notExists(tx.select().from(sample).where(eq(sample.patternId, pattern.id))),
      ),
    )
  if (old.length === 0) return
  const ids = old.map(({ id }) => id)
  await deletePictures(tx, ids)
  await tx.delete(stepWords).where(inArray(stepWords.patternId, ids))
  await tx.delete(pattern).where(inArray(pattern.id, ids))
}
