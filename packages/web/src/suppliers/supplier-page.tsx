import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { SupplierCard } from '@tessellum/contract/suppliers'
import { counted } from '@tessellum/core/measure/counted'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { AskFirst } from '../frame/ask-first'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { SupplierForm } from './supplier-form'

export function SupplierPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.supplier(id))
  usePageTitle(data?.name ?? 'Supplier')
  if (error && !data) return <Trouble error={error} />
  return data ? <Card card={data} /> : <PageLoading what="Fetching the supplier" />
}

const stateWords = { ordered: 'on its way', received: 'came', cancelled: 'called off' } as const

/** How to reach them, what they sell here at what price since when, and what was bought of them. */
function Card({ card }: { card: SupplierCard }) {
  const units = useUnits()
  const money = useMoney()
  const client = useQueryClient()
  const navigate = useNavigate()
  const mayBuy = useMay('stock.buy')
  const [changing, setChanging] = useState(false)
  const { id, name, contact, leadDays, minOrder, note, prices, bought } = card
  const remove = useIdempotentMutation((_: undefined) => call('POST /api/suppliers/:id/remove', { params: { id } }), {
    stale: ['suppliers'],
    said: 'Removed; orders and lots keep the name.',
    after: () => void navigate('/suppliers'),
  })
  const day = (on: string) => dayjs(on).format('D MMM YYYY')
  return (
    <div className="page stack">
      <PageHead
        title={name}
        under={
          <span className="quiet">
            {[
              contact,
              leadDays === null ? '' : `usually takes ${counted(leadDays, 'day')}`,
              minOrder > 0 ? `orders from ${money.say(minOrder)}` : '',
            ]
              .filter(Boolean)
              .join('; ')}
          </span>
        }
      >
        {mayBuy && <Button onClick={() => setChanging(true)}>Change</Button>}
        {mayBuy && (
          <AskFirst
            title={`Remove ${name}?`}
            follows="How to reach them and their minimum order are deleted. Orders, lots and items keep their name."
            ok="Remove them"
            run={() => remove.run(undefined)}
          >
            <Button danger loading={remove.busy}>
              Remove
            </Button>
          </AskFirst>
        )}
        <Link to="/suppliers">All suppliers</Link>
      </PageHead>
      <ErrorNotice error={remove.refused} />
      {note && <p className="notice">{note}</p>}
      <section className="sheet pad" aria-label="Prices">
        <h2>Prices</h2>
        {prices.length === 0 && <p className="quiet">No item has them as its maker.</p>}
        <FigureTable words>
          <tbody>
            {prices.map(({ itemId, name: what, unit, packs }) => (
              <tr key={itemId}>
                <th scope="row">
                  <Link to={`/stock/${itemId}`}>{what}</Link>
                </th>
                <td>
                  {packs
                    .map(
                      ({ amount, price, pricedOn }) =>
                        `${units.quantity(amount, unit)} for ${money.say(price)} since ${day(pricedOn)}`,
                    )
                    .join('; ') || <span className="trouble">no pack is known</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </FigureTable>
      </section>
      <section className="sheet pad" aria-label="Bought">
        <h2>Bought from them</h2>
        {bought.length === 0 && <p className="quiet">Nothing yet.</p>}
        <FigureTable words>
          <tbody>
            {bought.map(({ id: orderId, name: what, unit, amount, cost, orderedOn, state }) => (
              <tr key={orderId}>
                <th scope="row">{day(orderedOn)}</th>
                <td>{what}</td>
                <td>{units.quantity(amount, unit)}</td>
                <td>{money.say(cost)}</td>
                <td>{stateWords[state]}</td>
              </tr>
            ))}
          </tbody>
        </FigureTable>
      </section>
      {changing && (
        <SupplierForm
          supplier={card}
          close={() => setChanging(false)}
          done={(answer) => {
            client.setQueryData(read.supplier(id).queryKey, answer)
            setChanging(false)
          }}
        />
      )}
    </div>
  )
}
