import { useQuery } from '@tanstack/react-query'
import type { BuyLine } from '@tessellum/contract/buying'
import { sayMoney } from '@tessellum/core/measure/money'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link } from 'react-router'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { read } from '../shop/queries'
import { ReceiveLot } from '../stock/receive-lot'

/** What every open batch is short of, as whole packs by supplier, with the last day to order. */
export function BuyPage() {
  usePageTitle('What to buy')
  const { data: lines, error } = useQuery(read.buyList)
  if (error && !lines) return <Trouble error={error} />
  if (!lines) return <Loading what="Adding up what is short" />
  const suppliers = [...new Set(lines.map(({ supplier }) => supplier))]
  return (
    <div className="page stack">
      <div className="page-head">
        <h1>What to buy</h1>
        <span className="spacer" />
        <Link to="/kits">All batches</Link>
      </div>
      {lines.length === 0 && (
        <div className="empty sheet">
          <h2>Nothing is short</h2>
          <p>The shelf fills every batch that is planned.</p>
        </div>
      )}
      {suppliers.map((supplier) => (
        <Supplier key={supplier} name={supplier} lines={lines.filter((line) => line.supplier === supplier)} />
      ))}
    </div>
  )
}

function Supplier({ name, lines }: { name: string; lines: readonly BuyLine[] }) {
  const mayMove = useMay('stock.move')
  const [receiving, setReceiving] = useState<BuyLine>()
  const cost = lines.reduce((sum, line) => sum + line.cost, 0)
  return (
    <section className="rows" aria-label={name}>
      <div className="panel-head">
        <h2>{name}</h2>
        <span className="spacer" />
        <strong className="figures">{sayMoney(cost)}</strong>
      </div>
      <table className="figures size-table buy-list">
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col">Short</th>
            <th scope="col">Buy</th>
            <th scope="col">Cost</th>
            <th scope="col">Order by</th>
            <th scope="col">For</th>
            {mayMove && <td />}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.itemId}>
              <th scope="row">
                <svg className="swatch" width="15" height="15" aria-hidden="true">
                  <rect x="0.5" y="0.5" width="14" height="14" rx="4" fill={line.colour} stroke="#22302b" />
                </svg>{' '}
                <Link to={`/stock/${line.itemId}`}>{line.name}</Link>
              </th>
              <td className="trouble">{sayQuantity(line.short, line.unit)}</td>
              <td>
                {line.packs.map(({ count, amount }) => `${count} x ${sayQuantity(amount, line.unit)}`).join(', ') || (
                  <span className="trouble">no pack is known</span>
                )}
              </td>
              <td>{line.packs.length > 0 ? sayMoney(line.cost) : ''}</td>
              <td>
                <OrderBy day={line.orderBy} />
              </td>
              <td>
                {line.batches.map(({ id, name: batchName }, i) => (
                  <span key={id}>
                    {i > 0 && ', '}
                    <Link to={`/kits/${id}`}>{batchName}</Link>
                  </span>
                ))}
              </td>
              {mayMove && (
                <td>
                  <Button size="small" onClick={() => setReceiving(line)} aria-label={`Received: ${line.name}`}>
                    Received
                  </Button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {receiving && (
        <ReceiveLot
          item={{ id: receiving.itemId, name: receiving.name, unit: receiving.unit }}
          quantity={receiving.amount || receiving.short}
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
