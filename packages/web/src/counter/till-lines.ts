/** What lies on the counter before it is sold. */
import type { NewSale } from '@tessellum/contract/sales'
import type { ItemIdentity } from '@tessellum/contract/stock'
import type { StockUnit } from '@tessellum/core/kit/bill'
import { perSpoken } from '@tessellum/core/stock/quantity'

export interface TillLine {
  /** Of the line as long as it lies there. */
  readonly key: string
  readonly of: { readonly itemId: number } | { readonly patternId: number; readonly version: number }
  readonly name: string
  /** By which it is told from others; a pattern has none. */
  readonly item?: ItemIdentity | undefined
  readonly unit: StockUnit
  /** As it is said: grams, metres, pieces. */
  readonly amount: number | null
  /** What is asked for one unit that is kept, in minor units of money; null where nobody knows. */
  readonly perUnit: number | null
  /** Of the whole line, as somebody typed it; otherwise it follows the amount. */
  readonly typed: number | null
}

export interface Till {
  readonly customer: string
  /** Null where they are nobody on record. */
  readonly customerId: number | null
  readonly lines: readonly TillLine[]
}

export const emptyTill: Till = { customer: '', customerId: null, lines: [] }

/** In the unit that is kept. */
export const quantityOf = ({ amount, unit }: TillLine): number => Math.round((amount ?? 0) * perSpoken[unit])

/** In minor units of money; undefined while nobody has said one. */
export const priceOf = (line: TillLine): number | undefined =>
  line.typed ?? (line.perUnit === null ? undefined : Math.round(line.perUnit * quantityOf(line)))

export const totalOf = ({ lines }: Till): number => lines.reduce((sum, line) => sum + (priceOf(line) ?? 0), 0)

/** What is put down once more is more of the same. */
export function withLine({ lines, ...till }: Till, added: TillLine): Till {
  const at = lines.findIndex(({ of }) => JSON.stringify(of) === JSON.stringify(added.of))
  const known = lines[at]
  if (!known) return { ...till, lines: [...lines, added] }
  const more = { ...known, amount: (known.amount ?? 0) + (added.amount ?? 0) }
  return { ...till, lines: lines.with(at, more) }
}

/** @returns undefined while something is missing */
export function asSale({ customer, customerId, lines }: Till): NewSale | undefined {
  const sold = lines.flatMap((line): NewSale['lines'] => {
    const [quantity, price] = [quantityOf(line), priceOf(line)]
    if (quantity < 1 || price === undefined) return []
    return 'itemId' in line.of
      ? [{ what: 'item', ...line.of, quantity, price }]
      : [{ what: 'pattern', ...line.of, quantity, price }]
  })
  return lines.length > 0 && sold.length === lines.length ? { customer, customerId, lines: sold } : undefined
}
