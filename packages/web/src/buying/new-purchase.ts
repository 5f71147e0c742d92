import type { BuyLine, NewPurchase } from '@tessellum/contract/buying'
import dayjs from 'dayjs'

/** A line of what to buy, ordered today: it is expected when the pack that takes longest has come. */
export const newPurchase = ({ itemId, supplier, amount, cost, packs }: BuyLine): NewPurchase => ({
  itemId,
  supplier,
  amount,
  cost,
  expectedOn: dayjs()
    .add(Math.max(0, ...packs.map(({ leadDays }) => leadDays)), 'day')
    .format('YYYY-MM-DD'),
})
