import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { Order } from '@tessellum/contract/orders'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link } from 'react-router'
import { ErrorNotice } from '../frame/error-notice'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useToday } from '../settings/use-today'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { OrderForm, stale } from './order-form'
import { daysFrom, listed } from './order-list'
import { OrderRow } from './order-row'
import styles from './orders.module.css'

const done = {
  kits: 'Its kit is planned.',
  cancel: 'Called off.',
  reopen: 'Open again.',
}

/** What takes back the last that became of an order, where the shop can. */
const reopened = (orders: readonly Order[], id: number) =>
  orders.some((each) => each.id === id && each.undoable)
    ? () => call('POST /api/orders/:id/reopen', { params: { id } })
    : undefined

/** One customer's pieces: sized, coloured, priced, promised. */
export function OrdersPage() {
  usePageTitle('Orders')
  const client = useQueryClient()
  const mayKeep = useMay('orders.keep')
  const mayKnow = useMay('customers.read')
  const { data, error } = useQuery(read.orders)
  const today = useToday().format('YYYY-MM-DD')
  const [taking, setTaking] = useState(false)
  const [changing, setChanging] = useState<Order>()
  const after = (orders: Order[]) => client.setQueryData(read.orders.queryKey, orders)
  const act = useIdempotentMutation(
    ({ id, what }: { id: number; what: 'kits' | 'cancel' | 'reopen' }) =>
      call(`POST /api/orders/:id/${what}`, { params: { id } }),
    {
      of: 'orders',
      stale,
      after,
      said: (_, { what }) => done[what],
      // What else can be undone of an order is not what was done now.
      undo: (orders, { id, what }) => (what === 'cancel' ? reopened(orders, id) : undefined),
    },
  )
  const handOver = useIdempotentMutation(
    ({ id, kits }: { id: number; kits: number }) =>
      call('POST /api/orders/:id/hand-over', { params: { id }, body: { kits } }),
    { of: 'orders', stale, after, said: 'Handed over.', undo: (orders, { id }) => reopened(orders, id) },
  )
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Fetching the orders" />
  const { open, over } = listed(data)
  const row = (each: Order) => (
    <OrderRow
      key={each.id}
      order={each}
      today={today}
      mayKeep={mayKeep}
      mayKnow={mayKnow}
      run={(what) => act.run({ id: each.id, what })}
      handOver={(kits) => handOver.run({ id: each.id, kits })}
      change={() => setChanging(each)}
    />
  )
  return (
    <div className="page stack">
      <PageHead title="Orders">
        {mayKeep && (
          <Button type="primary" onClick={() => setTaking(true)}>
            Take an order
          </Button>
        )}
        {mayKnow && <Link to="/customers">Customers</Link>}
        <Link to="/diary">The diary</Link>
      </PageHead>
      <ErrorNotice error={act.refused ?? handOver.refused} />
      {data.length === 0 && (
        <div className="empty sheet">
          <h2>No orders yet</h2>
          <p>Take one: a measure, a colourway and a day are enough.</p>
        </div>
      )}
      {open.map(({ day, orders }) => (
        <section key={day} className={styles.day} aria-label={dayjs(day).format('dddd, D MMMM')}>
          <h2 className={styles.on}>
            {dayjs(day).format('ddd, D MMM')} <span className="quiet">{daysFrom(today, day)}</span>
          </h2>
          <div className="rows">{orders.map(row)}</div>
        </section>
      ))}
      {over.length > 0 && (
        <details open={open.length === 0 || over.some(({ undoable }) => undoable)}>
          <summary>Handed over and called off, {over.length}</summary>
          <div className="rows">{over.map(row)}</div>
        </details>
      )}
      {taking && <OrderForm close={() => setTaking(false)} />}
      {changing && <OrderForm key={changing.id} order={changing} close={() => setChanging(undefined)} />}
    </div>
  )
}
