/** What stands on labels: of kits, of the bags in them, of tubes. */
import type { PrintLabels } from '@tessellum/contract/devices'
import { counted } from '@tessellum/core/measure/counted'
import { codeOfBag, codeOfLot } from '@tessellum/core/stock/codes'
import { itemName } from '@tessellum/core/stock/item-name'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { asc, eq } from 'drizzle-orm'
import type { Session } from '../database/connect'
import type { Label } from '../documents/label'
import { packingOf } from '../packing/store'
import { linesOf } from '../planning/lines'
import { HttpProblem, notFound } from '../problem'
import { booking, classOffer, classTable } from '../schema/classes'
import { colourway, colourwayVersion } from '../schema/colourways'
import { lot } from '../schema/stock'
import { listItems } from '../stock/store'

/** @param of which labels; of one line or one kit only where they are given */
export async function labelsOf(
  db: Session,
  batchId: number,
  { of = 'both', lineId, kit }: PrintLabels,
): Promise<{ name: string; labels: Label[] }> {
  const { name, tasks } = await packingOf(db, batchId)
  const items = new Map(
    (await listItems(db, [...new Set(tasks.map(({ itemId }) => itemId))])).map((each) => [each.id, each]),
  )
  const bags = tasks
    .flatMap((task) => task.bags.map((bag) => ({ task, bag })))
    .filter(({ bag }) => (lineId === undefined || bag.lineId === lineId) && (kit === undefined || bag.kit === kit))
    .sort((a, b) => a.bag.line - b.bag.line || a.bag.kit - b.bag.kit)
  if (bags.length === 0)
    throw new HttpProblem(
      409,
      'nothing-laid-out',
      'Nothing is laid out for this batch, so there is nothing to label.',
      {
        hint: 'Reserve it first.',
      },
    )
  const labels: Label[] = []
  let last = ''
  for (const { task, bag } of bags) {
    const key = `${bag.lineId} ${bag.kit}`
    if (of !== 'bags' && key !== last)
      labels.push({ title: bag.of, lines: [name], figure: `Kit ${bag.kit}`, code: codeOfBag(bag.lineId, bag.kit) })
    last = key
    if (of === 'kits') continue
    const mass = items.get(task.itemId)?.bead?.massMg
    const quantity = bag.filled ?? bag.target
    // The count that a weight stands for is what whoever opens the bag looks for.
    const count = task.unit === 'mg' && mass ? `about ${counted(Math.floor(quantity / mass), 'bead')}` : ''
    labels.push({
      title: `${bag.roles}: ${task.name}`,
      lines: [
        `${bag.of}, kit ${bag.kit}`,
        [task.lotCode && `lot ${task.lotCode}`, count].filter(Boolean).join(' · '),
        task.cautions,
      ],
      figure: sayQuantity(quantity, task.unit),
      code: codeOfBag(bag.lineId, bag.kit, task.itemId),
    })
  }
  return { name, labels }
}

/** For each seat that is taken, a label to lie on it; with the kit of its choice where its batch is laid out. */
export async function labelsOfSeats(db: Session, classId: number): Promise<{ name: string; labels: Label[] }> {
  const [row] = await db.select().from(classTable).where(eq(classTable.id, classId))
  if (!row) throw notFound('class')
  const bookings = await db.select().from(booking).where(eq(booking.classId, classId)).orderBy(asc(booking.seat))
  if (bookings.length === 0)
    throw new HttpProblem(409, 'no-bookings', 'No seat of this class is taken yet.', { hint: 'Book one first.' })
  const offers = await db
    .select({
      position: classOffer.position,
      size: classOffer.size,
      name: colourway.name,
      versionId: colourwayVersion.id,
    })
    .from(classOffer)
    .innerJoin(colourwayVersion, eq(colourwayVersion.id, classOffer.colourwayVersionId))
    .innerJoin(colourway, eq(colourway.id, colourwayVersion.colourwayId))
    .where(eq(classOffer.classId, classId))
  const lines = row.batchId === null ? [] : await linesOf(db, row.batchId)
  const taken = new Map<number, number>()
  return {
    name: row.title,
    labels: bookings.map(({ seat, name, offer, note }) => {
      const chosen = offers.find(({ position }) => position === offer)
      const line = lines.find(
        ({ size, colourwayVersionId }) => size === chosen?.size && colourwayVersionId === chosen?.versionId,
      )
      const kit = (taken.get(offer) ?? 0) + 1
      taken.set(offer, kit)
      return {
        title: row.title,
        figure: name,
        lines: [`Seat ${seat}`, [chosen?.size, chosen?.name].filter(Boolean).join(', '), note],
        code: line ? codeOfBag(line.id, kit) : `SEAT-${classId}-${seat}`,
      }
    }),
  }
}

export async function labelOfLot(db: Session, lotId: number): Promise<Label> {
  const [tube] = await db.select().from(lot).where(eq(lot.id, lotId))
  const [of] = tube ? await listItems(db, [tube.itemId]) : []
  if (!tube || !of) throw notFound('lot')
  return {
    title: itemName(of),
    lines: [`since ${tube.receivedOn}`, tube.place, of.cautions],
    figure: tube.code,
    code: codeOfLot(lotId),
  }
}
