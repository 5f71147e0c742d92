import { useInfiniteQuery } from '@tanstack/react-query'
import type { PricesPage as Prices } from '@tessellum/contract/sales'
import { spokenUnit } from '@tessellum/core/stock/quantity'
import { Button, Input } from 'antd'
import { useDeferredValue, useState } from 'react'
import { Link } from 'react-router'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { NumberField } from '../frame/number-field'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { NamedItem } from '../stock/named-item'
import styles from './prices-page.module.css'

/** What is asked at the counter, item by item. */
export function PricesPage() {
  usePageTitle('Price list')
  const [typed, setTyped] = useState('')
  const find = useDeferredValue(typed.trim())
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery(read.prices(find))
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Fetching the prices" />
  const items = data.pages.flatMap((page) => page.items)
  return (
    <div className="page stack">
      <PageHead title="Price list">
        <a href="/api/prices.csv" download>
          As CSV
        </a>
        <Link to="/counter">The counter</Link>
      </PageHead>
      <p className="quiet">
        What the counter asks for. Where nothing is settled it asks what the item was sold for last, or else what it
        costs and the margin of the settings.
      </p>
      <Input.Search
        aria-label="Find an item"
        placeholder="A colour, a kind, a code"
        allowClear
        className={styles.find ?? ''}
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
      />
      <FigureTable words sheet>
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col">Code</th>
            <th scope="col">Asked</th>
            <th scope="col">By cost and margin</th>
          </tr>
        </thead>
        <tbody>
          {items.map((each) => (
            <OnePrice key={`${each.id} ${each.price}`} item={each} />
          ))}
        </tbody>
      </FigureTable>
      {hasNextPage && (
        <Button onClick={() => void fetchNextPage()} loading={isFetchingNextPage}>
          More
        </Button>
      )}
    </div>
  )
}

const forOne = { mg: 'a gram', mm: 'a metre', piece: 'each' } as const

function OnePrice({ item }: { item: Prices['items'][number] }) {
  const money = useMoney()
  const mayKeep = useMay('prices.keep')
  const { id, name, code, item: identity, unit, price, suggested } = item
  const [typed, setTyped] = useState(price === null ? null : price / 100)
  const save = useIdempotentMutation(
    (next: number | null) => call('PUT /api/items/:id/selling-price', { params: { id }, body: { price: next } }),
    { stale: ['sales'] },
  )
  const settle = () => {
    const next = typed === null ? null : Math.round(typed * 100)
    if (next !== price) save.run(next)
  }
  return (
    <tr>
      <th scope="row">
        <NamedItem item={identity} />
        <ErrorNotice error={save.refused} />
      </th>
      <td>{code}</td>
      <td className="figures">
        {mayKeep ? (
          <NumberField
            aria-label={`Asked for ${name}, ${spokenUnit[unit]}`}
            className={styles.figure ?? ''}
            min={0}
            step={0.1}
            precision={2}
            prefix={money.sign}
            suffix={forOne[unit]}
            value={typed}
            onChange={setTyped}
            onBlur={settle}
            onPressEnter={settle}
          />
        ) : price === null ? (
          ''
        ) : (
          `${money.say(price)} ${forOne[unit]}`
        )}
      </td>
      <td className="figures quiet">{suggested === null ? '' : `${money.say(suggested)} ${forOne[unit]}`}</td>
    </tr>
  )
}
