import { useQuery } from '@tanstack/react-query'
import type { Sale } from '@tessellum/contract/sales'
import { sayQuantity } from '@tessellum/core/stock/quantity'
import { Button, DatePicker, Table } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { Loading } from '../frame/loading'
import { Toolbar } from '../frame/page-head'
import { Trouble } from '../frame/trouble'
import { useMoney } from '../settings/use-shop-settings'
import { useToday } from '../settings/use-today'
import { addressOf } from '../shop/api'
import { read } from '../shop/queries'
import { TakeBack } from './take-back'

/** What was sold, today unless other days are chosen. */
export function Sold({ show }: { show: (sale: Sale) => void }) {
  const money = useMoney()
  const today = useToday()
  const [days, setDays] = useState<readonly [Dayjs, Dayjs]>([today, today])
  const [returning, setReturning] = useState<Sale>()
  const [from, to] = days.map((each) => each.format('YYYY-MM-DD')) as [string, string]
  const { data, error } = useQuery(read.sales(from, to))
  return (
    <section aria-label="Sold" className="stack">
      <Toolbar>
        <h2>Sold</h2>
        <DatePicker.RangePicker
          aria-label="Days"
          allowClear={false}
          format="D MMM YYYY"
          value={[days[0], days[1]]}
          onChange={(next) => {
            if (next?.[0] && next[1]) setDays([next[0], next[1]])
          }}
        />
        <span className="spacer" />
        {data && (
          <strong className="figures">
            {money.say(data.taken)}
            {data.refunded > 0 && `, ${money.say(data.refunded)} given back`}
          </strong>
        )}
        <a href={addressOf('GET /api/sales.csv', { query: { from, to } })}>CSV</a>
      </Toolbar>
      {error && !data && <Trouble error={error} />}
      {!data && !error && <Loading what="Fetching what was sold" />}
      {data && (
        <Table<Sale>
          rowKey="id"
          dataSource={data.sales}
          pagination={data.sales.length > 20 ? { pageSize: 20 } : false}
          scroll={{ x: 'max-content' }}
          locale={{ emptyText: <span className="quiet">Nothing was sold in these days.</span> }}
          columns={[
            { title: 'Sale', dataIndex: 'id', rowScope: 'row' },
            { title: 'When', render: (_, { at }) => dayjs(at).format('D MMM, HH:mm') },
            {
              title: 'What',
              render: (_, { lines, customer }) => (
                <>
                  {lines.map((line) => (
                    <div key={line.id}>
                      {sayQuantity(line.quantity, line.unit)} {line.name}
                      {line.returned > 0 && (
                        <span className="quiet">, {sayQuantity(line.returned, line.unit)} came back</span>
                      )}
                    </div>
                  ))}
                  {customer && <span className="quiet">to {customer}</span>}
                </>
              ),
            },
            {
              title: 'Price',
              align: 'right',
              render: (_, { lines }) => money.say(lines.reduce((sum, { price }) => sum + price, 0)),
            },
            {
              title: '',
              align: 'right',
              render: (_, sale) => (
                <div className="actions">
                  <Button size="small" onClick={() => show(sale)} aria-label={`Receipt of sale ${sale.id}`}>
                    Receipt
                  </Button>{' '}
                  <Button
                    size="small"
                    disabled={sale.lines.every((line) => line.returned >= line.quantity)}
                    onClick={() => setReturning(sale)}
                    aria-label={`Take back from sale ${sale.id}`}
                  >
                    Take back
                  </Button>
                </div>
              ),
            },
          ]}
        />
      )}
      {returning && <TakeBack sale={returning} close={() => setReturning(undefined)} />}
    </section>
  )
}
