import { useQuery } from '@tanstack/react-query'
import type { Purchase } from '@tessellum/contract/buying'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { AskFirst } from '../frame/ask-first'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { NamedItem } from '../stock/named-item'
import { ReceiveLot } from '../stock/receive-lot'
import styles from './buy-page.module.css'

/** What is ordered: it comes, or is called off. */
export function OnItsWay() {
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
                <NamedItem item={each.item} />
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
                    aria-label={`Mark received: ${each.name}`}
                  >
                    Mark received
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
