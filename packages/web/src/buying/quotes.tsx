import type { BuyLine, Quote } from '@tessellum/contract/buying'
import { counted } from '@tessellum/core/measure/counted'
import { Button } from 'antd'
import { useMoney } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'

interface QuotesProps {
  readonly quotes: readonly Quote[]
  readonly lines: readonly BuyLine[]
  readonly take: (quote: Quote) => void
  readonly busy: boolean
}

/** What suppliers ask today, beside what is kept: taken over one by one. */
export function Quotes({ quotes, lines, take, busy }: QuotesProps) {
  const units = useUnits()
  const money = useMoney()
  const troubles = [...new Set(quotes.flatMap(({ trouble }) => trouble ?? []))]
  const changed = quotes.filter((each) => each.changed)
  return (
    <div className="pad" role="status">
      {troubles.map((trouble) => (
        <p key={trouble} className="notice trouble">
          {trouble}
        </p>
      ))}
      {changed.length === 0 && troubles.length === 0 && <p className="notice good">All prices match the saved ones.</p>}
      {changed.map((each) => {
        const line = lines.find(({ itemId }) => itemId === each.itemId)
        return line ? (
          <div key={each.itemId} className="notice hands">
            <span>
              {line.name} is now{' '}
              {each.packs
                .map(
                  ({ amount, price, leadDays }) =>
                    `${units.quantity(amount, line.unit)} for ${money.say(price)} in ${counted(leadDays, 'day')}`,
                )
                .join(', ')}
              .
            </span>
            <Button
              size="small"
              loading={busy}
              onClick={() => take(each)}
              aria-label={`Save these prices: ${line.name}`}
            >
              Save these prices
            </Button>
          </div>
        ) : null
      })}
    </div>
  )
}
