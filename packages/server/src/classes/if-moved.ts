import type { ClassMove } from '@tessellum/contract/classes'
import { todayIn } from '@tessellum/core/measure/today'
import { and, asc, eq, ne } from 'drizzle-orm'
import { buyListIfMoved } from '../planning/buy-list'
import { notFound } from '../problem'
import { batch } from '../schema/batches'
import { classTable } from '../schema/classes'
import { workingDaysBefore } from '../settings/days'
import { settingsNow } from '../settings/store'
import type { Shop } from '../shop'

/** What would no longer fit in time if a class were held on another day. Nothing is changed by asking. */
export async function ifMoved(shop: Shop, id: number, heldOn: string): Promise<ClassMove> {
  const { db } = shop
  const [row] = await db
    .select({ teacherId: classTable.teacherId, batchId: classTable.batchId, batchState: batch.state })
    .from(classTable)
    .leftJoin(batch, eq(batch.id, classTable.batchId))
    .where(eq(classTable.id, id))
  if (!row) throw notFound('class')
  const { profile, kits, days } = await settingsNow(shop)
  const today = todayIn(profile.timeZone)
  const { batchId, batchState, teacherId } = row
  const packed = batchState === 'packed' || batchState === 'closed'
  const packBy = workingDaysBefore(heldOn, kits.packingDays, days)
  const lines = batchId !== null && batchState === 'draft' ? await buyListIfMoved(shop, { batchId, dueOn: heldOn }) : []
  const clashes = await db
    .select({ id: classTable.id, title: classTable.title, beginsAt: classTable.beginsAt })
    .from(classTable)
    .where(
      and(
        eq(classTable.heldOn, heldOn),
        eq(classTable.teacherId, teacherId),
        eq(classTable.state, 'offered'),
        ne(classTable.id, id),
      ),
    )
    .orderBy(asc(classTable.beginsAt))
  return {
    packBy: !packed && packBy < today ? packBy : null,
    late: lines.flatMap(({ itemId, name, orderBy, batches }) =>
      orderBy !== null && orderBy < today && batches.some((each) => each.id === batchId)
        ? [{ itemId, name, orderBy }]
        : [],
    ),
    clashes,
  }
}
