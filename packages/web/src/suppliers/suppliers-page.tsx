import { useQuery } from '@tanstack/react-query'
import { counted } from '@tessellum/core/measure/counted'
import { Button } from 'antd'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { FigureTable } from '../frame/figure-table'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { read } from '../shop/queries'
import { RecordFile } from '../shop/record-file'
import { SupplierForm } from './supplier-form'

/** Who sells to the shop. */
export function SuppliersPage() {
  usePageTitle('Suppliers')
  const navigate = useNavigate()
  const money = useMoney()
  const mayBuy = useMay('stock.buy')
  const [adding, setAdding] = useState(false)
  const { data, error } = useQuery(read.suppliers)
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Fetching the suppliers" />
  return (
    <div className="page stack">
      <PageHead title="Suppliers">
        {mayBuy && (
          <Button type="primary" onClick={() => setAdding(true)}>
            Add a supplier
          </Button>
        )}
        <a href="/api/suppliers.csv" download>
          All as CSV
        </a>
        <Link to="/kits/buy">What to buy</Link>
      </PageHead>
      {data.length === 0 ? (
        <div className="empty sheet">
          <h2>No suppliers yet</h2>
          <p>
            Add one under the name that its items have as their maker: what to buy then tells how to reach them, and
            what is missing from their minimum order.
          </p>
        </div>
      ) : (
        <FigureTable words sheet>
          <thead>
            <tr>
              <th scope="col">Name</th>
              <th scope="col">How to reach them</th>
              <th scope="col">Usually takes</th>
              <th scope="col">Minimum order</th>
              <th scope="col">Items here</th>
              <th scope="col">On its way</th>
            </tr>
          </thead>
          <tbody>
            {data.map((each) => (
              <tr key={each.id}>
                <th scope="row">
                  <Link to={`/suppliers/${each.id}`}>{each.name}</Link>
                </th>
                <td>{each.contact}</td>
                <td className="figures">{each.leadDays === null ? '' : counted(each.leadDays, 'day')}</td>
                <td className="figures">{each.minOrder > 0 ? money.say(each.minOrder) : ''}</td>
                <td className="figures">{each.items}</td>
                <td className="figures">{each.onItsWay > 0 ? money.say(each.onItsWay) : ''}</td>
              </tr>
            ))}
          </tbody>
        </FigureTable>
      )}
      {mayBuy && <RecordFile of="suppliers" same="The same name is the same supplier." />}
      {adding && <SupplierForm close={() => setAdding(false)} done={({ id }) => void navigate(`/suppliers/${id}`)} />}
    </div>
  )
}
