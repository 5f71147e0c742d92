import { useQueryClient } from '@tanstack/react-query'
import type { NewSale, Sale } from '@tessellum/contract/sales'
import { spokenUnit } from '@tessellum/core/stock/quantity'
import { Button } from 'antd'
import { CustomerField } from '../customers/customer-field'
import { ErrorNotice } from '../frame/error-notice'
import { ItemCell } from '../frame/item-cell'
import { useKept } from '../frame/kept-form'
import { NumberField } from '../frame/number-field'
import { useMoney } from '../settings/use-shop-settings'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { itemWords } from '../stock/item-words'
import { Swatch } from '../stock/swatch'
import styles from './counter.module.css'
import { Finder } from './finder'
import { asSale, emptyTill, priceOf, type TillLine, totalOf, withLine } from './till-lines'

/** Several things at once, each with its price; nothing that lies here is lost when the page is left. */
export function Till({ onSold }: { onSold: (sale: Sale) => void }) {
  const client = useQueryClient()
  const money = useMoney()
  const { value: till, change, forget } = useKept('till', emptyTill)
  const sell = useIdempotentMutation((body: NewSale) => call('POST /api/sales', { body }), {
    stale: ['sales', 'stock', 'buy-list', 'bench'],
    after: (sale) => {
      forget()
      onSold(sale)
    },
  })
  const put = async (found: Omit<TillLine, 'key' | 'perUnit' | 'typed'>) => {
    const known =
      'itemId' in found.of
        ? await client.fetchQuery(read.sellingPrice(found.of.itemId)).catch(() => ({ perUnit: null }))
        : { perUnit: null }
    change(withLine(till, { ...found, key: crypto.randomUUID(), perUnit: known.perUnit, typed: null }))
  }
  const set = (key: string, changed: Partial<TillLine>) =>
    change({ ...till, lines: till.lines.map((line) => (line.key === key ? { ...line, ...changed } : line)) })
  const whole = asSale(till)
  return (
    <section className={`sheet pad ${styles.till}`} aria-label="On the counter">
      <Finder onFound={(found) => void put(found)} />
      {till.lines.length === 0 ? (
        <p className="quiet">Nothing lies on the counter yet.</p>
      ) : (
        <ul className={styles.lines}>
          {till.lines.map((line) => {
            const price = priceOf(line)
            return (
              <li key={line.key} aria-label={line.name}>
                <span className={styles.name}>
                  {line.item ? (
                    <ItemCell swatch={<Swatch item={line.item} size={28} />} under={itemWords(line.item).join(', ')}>
                      {line.item.colourName}
                    </ItemCell>
                  ) : (
                    line.name
                  )}
                </span>
                <NumberField
                  aria-label={`How much of ${line.name}`}
                  min={0}
                  step={line.unit === 'piece' ? 1 : 0.5}
                  precision={line.unit === 'piece' ? 0 : 2}
                  value={line.amount}
                  suffix={spokenUnit[line.unit]}
                  onChange={(amount) => set(line.key, { amount })}
                />
                <NumberField
                  aria-label={`Price of ${line.name}`}
                  min={0}
                  step={0.5}
                  precision={2}
                  value={price === undefined ? null : price / 100}
                  prefix={money.sign}
                  onChange={(typed) => set(line.key, { typed: typed === null ? null : Math.round(typed * 100) })}
                />
                <Button
                  size="small"
                  aria-label={`Take ${line.name} off the counter`}
                  onClick={() => change({ ...till, lines: till.lines.filter(({ key }) => key !== line.key) })}
                >
                  Remove
                </Button>
              </li>
            )
          })}
        </ul>
      )}
      <div className={styles.foot}>
        <CustomerField
          label="Sold to"
          placeholder="Sold to (may be left out)"
          value={{ name: till.customer, id: till.customerId }}
          onChange={({ name, id }) => change({ ...till, customer: name, customerId: id })}
        />
        <strong className={`figures ${styles.total}`}>{money.say(totalOf(till))}</strong>
        <Button
          type="primary"
          size="large"
          disabled={!whole}
          loading={sell.busy}
          onClick={() => whole && sell.run(whole)}
        >
          Sell
        </Button>
      </div>
      <ErrorNotice error={sell.refused} />
      <p className="quiet">No payment is taken here: this only records what was sold, and for how much.</p>
    </section>
  )
}
