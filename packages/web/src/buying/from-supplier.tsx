import { useQuery } from '@tanstack/react-query'
import type { BuyLine, Quote } from '@tessellum/contract/buying'
import { Button, Progress } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { useToday } from '../settings/use-today'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { ReceiveLot } from '../stock/receive-lot'
import styles from './buy-page.module.css'
import { BuyRow } from './buy-row'
import { newPurchase } from './new-purchase'
import { Quotes } from './quotes'

interface FromSupplierProps {
  readonly name: string
  readonly lines: readonly BuyLine[]
}

/** What is to be ordered from one of them, item by item. */
export function FromSupplier({ name, lines }: FromSupplierProps) {
  const money = useMoney()
  const mayMove = useMay('stock.move')
  const mayBuy = useMay('stock.buy')
  const [receiving, setReceiving] = useState<BuyLine>()
  const [asked, setAsked] = useState<readonly Quote[]>([])
  const today = useToday()
  const order = useIdempotentMutation(
    (line: BuyLine) => call('POST /api/purchases', { body: newPurchase(line, today) }),
    {
      stale: ['buy-list', 'stock'],
      said: 'Ordered: it counts as coming.',
    },
  )
  const quotes = useIdempotentMutation((itemIds: number[]) => call('POST /api/quotes', { body: { itemIds } }), {
    after: setAsked,
  })
  const take = useIdempotentMutation(
    ({ itemId, packs }: Quote) => call('PUT /api/items/:id/packs', { params: { id: itemId }, body: { packs } }),
    {
      stale: ['buy-list', 'stock'],
      said: 'Prices saved.',
      after: ({ itemId }) => setAsked(asked.filter((each) => each.itemId !== itemId)),
    },
  )
  const cost = lines.reduce((sum, line) => sum + line.cost, 0)
  const { data: suppliers } = useQuery(read.suppliers)
  const known = suppliers?.find((each) => each.name === name)
  return (
    <section className="rows" aria-label={name}>
      <div className="panel-head">
        <h2>{known ? <Link to={`/suppliers/${known.id}`}>{name}</Link> : name}</h2>
        {known?.contact && <span className="quiet">{known.contact}</span>}
        <span className="spacer" />
        {known && <ToMinimum minOrder={known.minOrder} cost={cost} />}
        <strong className="figures">{money.say(cost)}</strong>
        {mayBuy && (
          <Button size="small" loading={quotes.busy} onClick={() => quotes.run(lines.map(({ itemId }) => itemId))}>
            Ask for today’s prices
          </Button>
        )}
      </div>
      <ErrorNotice error={order.refused ?? quotes.refused ?? take.refused} />
      {asked.length > 0 && <Quotes quotes={asked} lines={lines} take={take.run} busy={take.busy} />}
      <FigureTable>
        <thead>
          <tr>
            <th scope="col" className={styles.itemHead}>
              Item
            </th>
            <th scope="col" className={styles.supply}>
              There and wanted
            </th>
            <th scope="col" className={styles.short}>
              Short
            </th>
            <th scope="col">Buy</th>
            <th scope="col">Cost</th>
            <th scope="col" className={styles.orderBy}>
              Order by
            </th>
            {(mayMove || mayBuy) && <td />}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <BuyRow
              key={line.itemId}
              line={line}
              ordering={order.busy && order.doing?.itemId === line.itemId}
              order={mayBuy ? () => order.run(line) : undefined}
              receive={mayMove ? () => setReceiving(line) : undefined}
            />
          ))}
        </tbody>
      </FigureTable>
      {receiving && (
        <ReceiveLot
          item={{ id: receiving.itemId, name: receiving.name, unit: receiving.unit }}
          quantity={receiving.amount || receiving.short + receiving.low}
          close={() => setReceiving(undefined)}
        />
      )}
    </section>
  )
}

/** How far an order goes towards the least they take. */
function ToMinimum({ minOrder, cost }: { minOrder: number; cost: number }) {
  const money = useMoney()
  if (minOrder === 0 || cost === 0 || cost >= minOrder) return null
  return (
    <span className={styles.minimum}>
      <Progress
        percent={(100 * cost) / minOrder}
        showInfo={false}
        size="small"
        aria-hidden
        strokeColor="var(--brass)"
      />
      <span className={styles.small}>
        {money.say(minOrder - cost)} to their minimum order of {money.say(minOrder)}
      </span>
    </span>
  )
}
