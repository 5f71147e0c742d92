import { useInfiniteQuery } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import { useDeferredValue, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { FigureTable } from '../frame/figure-table'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useUnits } from '../settings/use-units'
import { read } from '../shop/queries'
import { RecordFile } from '../shop/record-file'
import { CustomerForm } from './customer-form'
import styles from './customers-page.module.css'
import { sayMeasures } from './say-measures'

/** Customers by name. */
export function CustomersPage() {
  usePageTitle('Customers')
  const navigate = useNavigate()
  const mayKeep = useMay('customers.keep')
  const mayManage = useMay('customers.manage')
  const [typed, setTyped] = useState('')
  const [adding, setAdding] = useState(false)
  const units = useUnits()
  const find = useDeferredValue(typed.trim())
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery(read.customers(find))
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Fetching the customers" />
  const customers = data.pages.flatMap((page) => page.customers)
  return (
    <div className="page stack">
      <PageHead title="Customers">
        {mayKeep && (
          <Button type="primary" onClick={() => setAdding(true)}>
            Add a customer
          </Button>
        )}
        {mayManage && (
          <a href="/api/customers.csv" download>
            All as CSV
          </a>
        )}
        <Link to="/diary/orders">Orders</Link>
      </PageHead>
      <Input.Search
        aria-label="Find a customer"
        placeholder="A name, a number, a word of the note"
        allowClear
        className={styles.find ?? ''}
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
      />
      {customers.length === 0 ? (
        <div className="empty sheet">
          <h2>{find ? 'No customer found' : 'No customers yet'}</h2>
          <p>
            Somebody who buys, orders or comes to a class need not be on record. Those who are have their measures, what
            they paid and what they bought in one place.
          </p>
        </div>
      ) : (
        <FigureTable words sheet>
          <thead>
            <tr>
              <th scope="col">Name</th>
              <th scope="col">How to reach them</th>
              <th scope="col">Measures</th>
              <th scope="col">To know</th>
            </tr>
          </thead>
          <tbody>
            {customers.map((each) => (
              <tr key={each.id}>
                <th scope="row">
                  <Link to={`/customers/${each.id}`}>{each.name}</Link>
                </th>
                <td>{each.contact}</td>
                <td className="figures">{sayMeasures(each, units)}</td>
                <td>{[each.leftHanded && 'left-handed', each.allergies].filter(Boolean).join('; ')}</td>
              </tr>
            ))}
          </tbody>
        </FigureTable>
      )}
      {hasNextPage && (
        <Button onClick={() => void fetchNextPage()} loading={isFetchingNextPage}>
          More
        </Button>
      )}
      {mayManage && <RecordFile of="customers" same="The same name with the same contact is the same customer." />}
      {adding && <CustomerForm close={() => setAdding(false)} done={({ id }) => void navigate(`/customers/${id}`)} />}
    </div>
  )
}
