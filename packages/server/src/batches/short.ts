import { itemName } from '@tessellum/core/stock/item-name'
import type { Session } from '../database/connect'
import { HttpProblem } from '../problem'
import { listItems } from '../stock/store'
import type { Reallocation } from './change'

/** @throws HttpProblem where it does not fit on the shelf */
export async function refuseShort(db: Session, { short }: Reallocation): Promise<void> {
  if (!short) return
  const [item] = await listItems(db, [short.itemId])
  throw new HttpProblem(
    409,
    'short-of-stock',
    `${item ? itemName(item) : 'An item'} is short for ${short.kits} of the kits. Nothing has been changed.`,
    { path: `lines.${short.at}`, hint: 'Plan fewer kits, let something stand in, or receive more.' },
  )
}
