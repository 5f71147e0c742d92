import { type Crop, type describePicture, maxPictures, type Pictures } from '@tessellum/contract/pictures'
import { and, count, eq, isNull, max } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Database, Session } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem, notFound } from '../problem'
import { pattern } from '../schema/patterns'
import { picture } from '../schema/pictures'
import type { Shop } from '../shop'
import { insertPicture, picturesOf, readPicture } from './pictures'
import { findPattern } from './store'

/** Whoever changes a pattern's pictures waits for who does so before. */
async function lockPattern(tx: Session, id: number): Promise<{ title: string }> {
  const [row] = await tx.select({ title: pattern.title }).from(pattern).where(eq(pattern.id, id)).for('update')
  if (!row) throw notFound('pattern')
  return row
}

export async function addPicture(
  { db, workers }: Shop,
  patternId: number,
  bytes: Uint8Array,
  caller: Caller,
): Promise<Pictures> {
  await findPattern(db, patternId)
  const files = await workers.run('picture', { bytes, crop: null })
  return runOnce(db, caller, `picture of ${patternId}`, async (tx) => {
    const { title } = await lockPattern(tx, patternId)
    const [there] = await tx
      .select({ many: count(), last: max(picture.position) })
      .from(picture)
      .where(and(eq(picture.patternId, patternId), isNull(picture.removedAt)))
    if (there && there.many >= maxPictures)
      throw new HttpProblem(409, 'too-many-pictures', `A pattern has at most ${maxPictures} pictures.`, {
        hint: 'Remove one first.',
      })
    await insertPicture(tx, { patternId, position: (there?.last ?? 0) + 1, addedBy: caller.id }, files)
    await logActivity(tx, caller.id, `added a picture to ${title}`, `/patterns/${patternId}/pictures`)
    return picturesOf(tx, patternId)
  })
}

type PictureRow = typeof picture.$inferSelect

/** @param act answers what was done, for the audit log */
const change = (
  db: Database,
  id: number,
  kind: string,
  caller: Caller,
  act: (tx: Session, row: PictureRow) => Promise<string>,
): Promise<Pictures> =>
  runOnce(db, caller, `${kind} picture ${id}`, async (tx) => {
    const [of] = await tx.select({ patternId: picture.patternId }).from(picture).where(eq(picture.id, id))
    if (!of) throw notFound('picture')
    const { title } = await lockPattern(tx, of.patternId)
    const [row] = await tx.select().from(picture).where(eq(picture.id, id))
    const what = await act(tx, row as PictureRow)
    await logActivity(tx, caller.id, `${what} ${title}`, `/patterns/${of.patternId}/pictures`)
    return picturesOf(tx, of.patternId)
  })

const set = (tx: Session, id: number, values: Partial<PictureRow>) =>
  tx.update(picture).set(values).where(eq(picture.id, id))

export const describe = (db: Database, id: number, given: z.output<typeof describePicture>, caller: Caller) =>
  change(db, id, 'describe', caller, async (tx) => {
    await set(tx, id, { ...given, step: given.kind === 'finished' ? null : given.step })
    return 'described a picture of'
  })

/** A version may show it as it was: cropped it is another, in its place. */
export async function cropPicture(
  { db, workers }: Shop,
  id: number,
  crop: Crop | null,
  caller: Caller,
): Promise<Pictures> {
  const files = await workers.run('picture', { bytes: await readPicture(db, id, 'whole'), crop })
  return change(db, id, 'crop', caller, async (tx, row) => {
    if (row.removedAt)
      throw new HttpProblem(409, 'picture-removed', 'This picture has been removed or cropped already.', {
        hint: 'Reload the page.',
      })
    const { patternId, kind, step, caption, position } = row
    await insertPicture(tx, { patternId, kind, step, caption, position, crop, addedBy: caller.id }, files)
    await set(tx, id, { removedAt: new Date() })
    return 'cropped a picture of'
  })
}

export const removePicture = (db: Database, id: number, caller: Caller) =>
  change(db, id, 'remove', caller, async (tx, { removedAt }) => {
    if (!removedAt) await set(tx, id, { removedAt: new Date() })
    return 'removed a picture from'
  })

export const putBackPicture = (db: Database, id: number, caller: Caller) =>
  change(db, id, 'put back', caller, async (tx) => {
    await set(tx, id, { removedAt: null })
    return 'put a picture back into'
  })

/** Those that are not named come last, in the order they had. */
export const orderPictures = (db: Database, patternId: number, ids: readonly number[], caller: Caller) =>
  runOnce(db, caller, `order of pictures of ${patternId}`, async (tx) => {
    await lockPattern(tx, patternId)
    const { pictures } = await picturesOf(tx, patternId)
    const place = ({ id }: { readonly id: number }) => (ids.includes(id) ? ids.indexOf(id) : ids.length)
    const ordered = [...pictures].sort((a, b) => place(a) - place(b))
    for (const [i, { id }] of ordered.entries()) await set(tx, id, { position: i + 1 })
    return picturesOf(tx, patternId)
  })
