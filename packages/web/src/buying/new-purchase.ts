import type { BuyLine, NewPurchase } from '@tessellum/contract/buying'
import type { Dayjs } from 'dayjs'

/** A line of what to buy, ordered today: it is expected when the pack that takes longest has come. */
export const newPurchase = ({ itemId, supplier, amount, cost, packs }: BuyLine, today: Dayjs): NewPurchase => ({
  itemId,
  supplier,
  amount,
  cost,
  expectedOn: today.add(Math.max(0, ...packs.map(({ leadDays }) => leadDays)), 'day').format('YYYY-MM-DD'),
})
