import type { Quote } from '@tessellum/contract/buying'
import type { Session } from '../database/connect'
import { shopSettings } from '../settings/store'
import { listItems } from '../stock/store'
import { askPrices, NoPrices, type Price } from './supplier'

/** What suppliers ask today for some items, beside what is kept. Nothing is changed by asking. */
export async function quotesFor(db: Session, supplier: string, ids: readonly number[]): Promise<Quote[]> {
  const items = await listItems(db, ids)
  let prices: Price[] = []
  let trouble: string | null = null
  try {
    prices = await askPrices(
      supplier,
      items.map(({ code }) => code),
      (await shopSettings(db)).money.currency,
    )
  } catch (error) {
    if (!(error instanceof NoPrices)) throw error
    trouble = error.message
  }
  return items.map(({ id: itemId, code, packs: kept }) => {
    const packs = prices.find((each) => each.code === code)?.packs ?? []
    if (trouble !== null || packs.length === 0)
      return { itemId, packs: kept, changed: false, trouble: trouble ?? 'They do not sell this any more.' }
    return { itemId, packs, changed: JSON.stringify(packs) !== JSON.stringify(kept), trouble: null }
  })
}
