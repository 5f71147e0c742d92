import { useQuery } from '@tanstack/react-query'
import type { BuyLine, NewPurchase, Purchase, Quote } from '@tessellum/contract/buying'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link } from 'react-router'
import { AskFirst } from '../frame/ask-first'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { PageLoading } from '../frame/loading'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { ReceiveLot } from '../stock/receive-lot'
import { ColourChip } from '../stock/swatch'
import styles from './buy-page.module.css'

/** What every open batch is short of and what runs low, as whole packs by supplier, with the last day to order. */
export function BuyPage() {
  usePageTitle('What to buy')
  const { data: lines, error } = useQuery(read.buyList)
  if (error && !lines) return <Trouble error={error} />
  if (!lines) return <PageLoading what="Adding up what is short" />
  const suppliers = [...new Set(lines.map(({ supplier }) => supplier))]
  return (
    <div className="page stack">
      <PageHead title="What to buy">
        <a href="/api/buy-list/file?format=csv" download>
          As CSV
        </a>
        <a href="/api/buy-list/file?format=xlsx" download>
          As XLSX
        </a>
        <Link to="/suppliers">Suppliers</Link>
        <Link to="/kits">All batches</Link>
      </PageHead>
      {lines.length === 0 && (
        <div className="empty sheet">
          <h2>Nothing is short</h2>
          <p>The shelf fills every batch that is planned, and nothing runs low.</p>
        </div>
      )}
      {suppliers.map((supplier) => (
        <Supplier key={supplier} name={supplier} lines={lines.filter((line) => line.supplier === supplier)} />
      ))}
      <OnItsWay />
    </div>
  )
}

function Supplier({ name, lines }: { name: string; lines: readonly BuyLine[] }) {
  const units = useUnits()
  const money = useMoney()
  const mayMove = useMay('stock.move')
  const mayBuy = useMay('stock.buy')
  const [receiving, setReceiving] = useState<BuyLine>()
  const [asked, setAsked] = useState<readonly Quote[]>([])
  const order = useIdempotentMutation(
    ({ itemId, supplier, amount, cost, expectedOn }: NewPurchase) =>
      call('POST /api/purchases', { body: { itemId, supplier, amount, cost, expectedOn } }),
    { stale: ['buy-list', 'stock'], said: 'Ordered: it counts as coming.' },
  )
  const quotes = useIdempotentMutation((itemIds: number[]) => call('POST /api/quotes', { body: { itemIds } }), {
    after: setAsked,
  })
  const take = useIdempotentMutation(
    ({ itemId, packs }: Quote) => call('PUT /api/items/:id/packs', { params: { id: itemId }, body: { packs } }),
    {
      stale: ['buy-list', 'stock'],
      said: 'These prices are kept.',
      after: ({ itemId }) => setAsked(asked.filter((each) => each.itemId !== itemId)),
    },
  )
  const cost = lines.reduce((sum, line) => sum + line.cost, 0)
  const { data: suppliers } = useQuery(read.suppliers)
  const known = suppliers?.find((each) => each.name === name)
  const wanting = known ? known.minOrder - cost : 0
  return (
    <section className="rows" aria-label={name}>
      <div className="panel-head">
        <h2>{known ? <Link to={`/suppliers/${known.id}`}>{name}</Link> : name}</h2>
        {known?.contact && <span className="quiet">{known.contact}</span>}
        {known && wanting > 0 && cost > 0 && (
          <span className="trouble">
            {money.say(wanting)} to their minimum order of {money.say(known.minOrder)}
          </span>
        )}
        <span className="spacer" />
        {mayBuy && (
          <Button size="small" loading={quotes.busy} onClick={() => quotes.run(lines.map(({ itemId }) => itemId))}>
            Ask for today’s prices
          </Button>
        )}
        <strong className="figures">{money.say(cost)}</strong>
      </div>
      <ErrorNotice error={order.refused ?? quotes.refused ?? take.refused} />
      {asked.length > 0 && <Quotes quotes={asked} lines={lines} take={take.run} busy={take.busy} />}
      <FigureTable>
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col">Short</th>
            <th scope="col">Buy</th>
            <th scope="col">Cost</th>
            <th scope="col">Order by</th>
            <th scope="col">For</th>
            {(mayMove || mayBuy) && <td />}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.itemId}>
              <th scope="row">
                <ColourChip colour={line.colour} /> <Link to={`/stock/${line.itemId}`}>{line.name}</Link>
              </th>
              <td className={line.short > 0 ? 'trouble' : 'quiet'}>
                {line.short > 0 ? units.quantity(line.short, line.unit) : 'runs low'}
              </td>
              <td>
                {line.packs
                  .map(({ count, amount }) => `${count} x ${units.quantity(amount, line.unit)}`)
                  .join(', ') || <span className="trouble">no pack is known</span>}
              </td>
              <td>{line.packs.length > 0 ? money.say(line.cost) : ''}</td>
              <td>{line.orderBy !== null && <OrderBy day={line.orderBy} />}</td>
              <td>
                {line.batches.map(({ id, name: batchName }, i) => (
                  <span key={id}>
                    {i > 0 && ', '}
                    <Link to={`/kits/${id}`}>{batchName}</Link>
                  </span>
                ))}
                {line.low > 0 && (
                  <span className="quiet">
                    {line.batches.length > 0 && ', and '}
                    {units.quantity(line.low, line.unit)} to its reorder level
                  </span>
                )}
              </td>
              {(mayMove || mayBuy) && (
                <td className={styles.unbroken}>
                  {mayBuy && line.amount > 0 && (
                    <Button
                      size="small"
                      type="primary"
                      loading={order.busy && order.doing?.itemId === line.itemId}
                      onClick={() =>
                        order.run({
                          itemId: line.itemId,
                          supplier: name,
                          amount: line.amount,
                          cost: line.cost,
                          expectedOn: dayjs()
                            .add(Math.max(0, ...line.packs.map(({ leadDays }) => leadDays)), 'day')
                            .format('YYYY-MM-DD'),
                        })
                      }
                      aria-label={`Ordered: ${line.name}`}
                    >
                      Ordered
                    </Button>
                  )}{' '}
                  {mayMove && (
                    <Button size="small" onClick={() => setReceiving(line)} aria-label={`Received: ${line.name}`}>
                      Received
                    </Button>
                  )}
                </td>
              )}
            </tr>
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

function OrderBy({ day }: { day: string }) {
  const left = dayjs(day).diff(dayjs().startOf('day'), 'day')
  const said = dayjs(day).format('dddd, D MMMM')
  if (left < 0) return <strong className="trouble">{said}: too late for it</strong>
  return <span className={left <= 2 ? 'trouble' : ''}>{said}</span>
}

interface QuotesProps {
  readonly quotes: readonly Quote[]
  readonly lines: readonly BuyLine[]
  readonly take: (quote: Quote) => void
  readonly busy: boolean
}

/** What suppliers ask today, beside what is kept: taken over one by one. */
function Quotes({ quotes, lines, take, busy }: QuotesProps) {
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
      {changed.length === 0 && troubles.length === 0 && <p className="notice good">All prices are as they are kept.</p>}
      {changed.map((each) => {
        const line = lines.find(({ itemId }) => itemId === each.itemId)
        return line ? (
          <div key={each.itemId} className="notice hands">
            <span>
              {line.name} is now{' '}
              {each.packs
                .map(
                  ({ amount, price, leadDays }) =>
                    `${units.quantity(amount, line.unit)} for ${money.say(price)} in ${leadDays} days`,
                )
                .join(', ')}
              .
            </span>
            <Button
              size="small"
              loading={busy}
              onClick={() => take(each)}
              aria-label={`Keep these prices: ${line.name}`}
            >
              Keep these prices
            </Button>
          </div>
        ) : null
      })}
    </div>
  )
}

/** What is ordered: it comes, or is called off. */
function OnItsWay() {
  const units = useUnits()
  const money = useMoney()
  const mayMove = useMay('stock.move')
  const mayBuy = useMay('stock.buy')
  const { data } = useQuery(read.purchases)
  const [receiving, setReceiving] = useState<Purchase>()
  const callOff = useIdempotentMutation((id: number) => call('POST /api/purchases/:id/cancel', { params: { id } }), {
    stale: ['buy-list', 'stock'],
    said: 'Called off.',
  })
  if (!data || data.length === 0) return null
  return (
    <section className="rows" aria-label="On its way">
      <div className="panel-head">
        <h2>On its way</h2>
      </div>
      <ErrorNotice error={callOff.refused} />
      <FigureTable>
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col">Amount</th>
            <th scope="col">Cost</th>
            <th scope="col">Expected</th>
            <th scope="col">From</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {data.map((each) => (
            <tr key={each.id}>
              <th scope="row">
                <Link to={`/stock/${each.itemId}`}>{each.name}</Link>
              </th>
              <td>{units.quantity(each.amount, each.unit)}</td>
              <td>{money.say(each.cost)}</td>
              <td>{dayjs(each.expectedOn).format('dddd, D MMMM')}</td>
              <td>{each.supplier}</td>
              <td className={styles.unbroken}>
                {mayMove && (
                  <Button
                    size="small"
                    type="primary"
                    onClick={() => setReceiving(each)}
                    aria-label={`It came: ${each.name}`}
                  >
                    It came
                  </Button>
                )}{' '}
                {mayBuy && (
                  <AskFirst
                    title={`Call off the order of ${each.name}?`}
                    follows="It is no longer expected. The supplier has to be told by you."
                    ok="Call it off"
                    run={() => callOff.run(each.id)}
                  >
                    <Button size="small" aria-label={`Call off: ${each.name}`}>
                      Call off
                    </Button>
                  </AskFirst>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
      {receiving && (
        <ReceiveLot
          item={{ id: receiving.itemId, name: receiving.name, unit: receiving.unit }}
          quantity={receiving.amount}
          purchaseId={receiving.id}
          close={() => setReceiving(undefined)}
        />
      )}
    </section>
  )
}
