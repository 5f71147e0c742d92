import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { CustomerCard } from '@tessellum/contract/customers'
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
import { CustomerForm } from './customer-form'
import { sayMeasures } from './say-measures'

export function CustomerPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.customer(id))
  usePageTitle(data?.name ?? 'Customer')
  if (error && !data) return <Trouble error={error} />
  return data ? <Card card={data} /> : <PageLoading what="Fetching the customer" />
}

const orderWords = { taken: 'taken', done: 'handed over', cancelled: 'called off' } as const
const classWords = { offered: 'booked', taught: 'taught', cancelled: 'called off' } as const

/** What they told the shop, and what the shop did for them. */
function Card({ card }: { card: CustomerCard }) {
  const units = useUnits()
  const money = useMoney()
  const client = useQueryClient()
  const navigate = useNavigate()
  const mayKeep = useMay('customers.keep')
  const mayManage = useMay('customers.manage')
  const [changing, setChanging] = useState(false)
  const { id, name, contact, leftHanded, allergies, note, orders, sales, classes, owed } = card
  const forget = useIdempotentMutation((_: undefined) => call('POST /api/customers/:id/forget', { params: { id } }), {
    stale: ['customers', 'orders', 'sales', 'classes', 'batches', 'diary', 'bench'],
    said: 'Forgotten: what they bought stays, without them.',
    after: () => void navigate('/customers'),
  })
  const day = (on: string) => dayjs(on).format('D MMM YYYY')
  return (
    <div className="page stack">
      <PageHead title={name}>
        {mayKeep && <Button onClick={() => setChanging(true)}>Change</Button>}
        {mayManage && (
          <AskFirst
            title={`Forget ${name}?`}
            follows="Their name, contact, measures and notes are deleted for good. What they ordered and bought stays in the books without a name. Save the CSV first if they asked for their data."
            ok="Forget them"
            run={() => forget.run(undefined)}
          >
            <Button danger loading={forget.busy}>
              Forget
            </Button>
          </AskFirst>
        )}
        <Link to="/customers">All customers</Link>
      </PageHead>
      <ErrorNotice error={forget.refused} />
      {allergies && (
        <p className="notice trouble">
          <strong>Allergies:</strong> {allergies}
        </p>
      )}
      <section className="sheet pad" aria-label="About them">
        <FigureTable words>
          <tbody>
            {[
              ['How to reach them', contact || 'not known'],
              ['Measures', sayMeasures(card, units) || 'not taken'],
              ['Hand', leftHanded ? 'left-handed' : 'right-handed'],
              ['Still to pay', money.say(owed)],
              ...(note ? [['Note', note]] : []),
            ].map(([what, said]) => (
              <tr key={what}>
                <th scope="row">{what}</th>
                <td className="figures">{said}</td>
              </tr>
            ))}
          </tbody>
        </FigureTable>
      </section>
      <Table
        title="Orders"
        none="No orders."
        rows={orders.map((each) => ({
          key: each.id,
          on: day(each.wantedOn),
          what: <Link to="/diary/orders">{each.what}</Link>,
          state: orderWords[each.state],
          price: `${money.say(each.paid)} of ${money.say(each.price)} paid`,
        }))}
      />
      <Table
        title="Classes"
        none="No classes."
        rows={classes.map((each, i) => ({
          key: i,
          on: day(each.heldOn),
          what: <Link to={`/diary/classes/${each.id}`}>{each.title}</Link>,
          state: each.absent ? 'did not come' : classWords[each.state],
          price: `${money.say(each.paid)} of ${money.say(each.price)} paid`,
        }))}
      />
      <Table
        title="Bought over the counter"
        none="Nothing yet."
        rows={sales.map((each) => ({
          key: each.id,
          on: day(each.at),
          what: each.what.join('; '),
          state: '',
          price: money.say(each.total),
        }))}
      />
      {changing && (
        <CustomerForm
          customer={card}
          close={() => setChanging(false)}
          done={(answer) => {
            client.setQueryData(read.customer(id).queryKey, answer)
            setChanging(false)
          }}
        />
      )}
    </div>
  )
}

interface TableProps {
  readonly title: string
  readonly none: string
  readonly rows: readonly {
    readonly key: number
    readonly on: string
    readonly what: React.ReactNode
    readonly state: string
    readonly price: string
  }[]
}

const Table = ({ title, none, rows }: TableProps) => (
  <section className="sheet pad" aria-label={title}>
    <h2>{title}</h2>
    {rows.length === 0 ? (
      <p className="quiet">{none}</p>
    ) : (
      <FigureTable words>
        <tbody>
          {rows.map(({ key, on, what, state, price }) => (
            <tr key={key}>
              <th scope="row" className="figures">
                {on}
              </th>
              <td>{what}</td>
              <td>{state}</td>
              <td className="figures">{price}</td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
    )}
  </section>
)
