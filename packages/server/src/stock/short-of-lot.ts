import type { StockUnit } from '@tessellum/core/kit/bill'
import { type Balance, freeOf } from '@tessellum/core/stock/moves'
import type { Session } from '../database/connect'
import { HttpProblem } from '../problem'
import { shopUnits } from '../settings/units'

/** More was asked of a lot than is free of it. */
export async function shortOfLot(
  db: Session,
  held: Balance & { readonly unit: StockUnit },
  hint: string,
): Promise<HttpProblem> {
  const units = await shopUnits(db)
  const reserved = held.reserved > 0 ? `; ${units.exactly(held.reserved, held.unit)} reserved for batches` : ''
  return new HttpProblem(
    409,
    'short-of-stock',
    `Free of this lot: ${units.exactly(freeOf(held), held.unit)}${reserved}. That is less than you asked for.`,
    { path: 'quantity', hint },
  )
}
