import type { Found } from '@tessellum/contract/devices'
import { readCode } from '@tessellum/core/stock/codes'
import { itemName } from '@tessellum/core/stock/item-name'
import { eq } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { HttpProblem } from '../problem'
import { batch, batchLine } from '../schema/batches'
import { item, lot } from '../schema/stock'
import { listItems } from '../stock/store'

/** What a code stands for: a lot's or a bag's label of ours, or a maker's barcode on a tube. */
export async function lookUp(db: Session, text: string): Promise<Found> {
  const code = readCode(text)
  const unknown = (message: string) =>
    new HttpProblem(404, 'unknown-code', message, { hint: 'Scan it again, or choose from the list.' })
  if (!code) throw unknown('That was not read clearly.')
  if (code.kind === 'lot') {
    const [tube] = await db.select().from(lot).where(eq(lot.id, code.lotId))
    const [of] = tube ? await listItems(db, [tube.itemId]) : []
    if (!tube || !of) throw unknown(`${text} is no lot of this shop.`)
    return { kind: 'lot', lotId: tube.id, itemId: of.id, name: itemName(of), lotCode: tube.code }
  }
  if (code.kind === 'bag') {
    const [line] = await db
      .select({ batchId: batch.id, batchName: batch.name })
      .from(batchLine)
      .innerJoin(batch, eq(batch.id, batchLine.batchId))
      .where(eq(batchLine.id, code.lineId))
    if (!line) throw unknown(`${text} is no bag of this shop.`)
    const { lineId, kit, itemId } = code
    return { kind: 'bag', batchId: line.batchId, batchName: line.batchName, lineId, kit, itemId: itemId ?? null }
  }
  const [known] = await db.select({ id: item.id }).from(item).where(eq(item.barcode, code.code))
  const [of] = known ? await listItems(db, [known.id]) : []
  if (!of) throw unknown(`Unknown barcode ${code.code}.`)
  return { kind: 'item', itemId: of.id, name: itemName(of) }
}
