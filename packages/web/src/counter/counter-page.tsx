import type { Sale } from '@tessellum/contract/sales'
import { useState } from 'react'
import { Link } from 'react-router'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { useMay } from '../people/me'
import { Receipt } from './receipt'
import { Sold } from './sold'
import { Till } from './till'

/** Selling over the counter: what is sold now, and what has been. */
export function CounterPage() {
  usePageTitle('Counter')
  const mayKnow = useMay('customers.read')
  const [shown, setShown] = useState<Sale>()
  return (
    <div className="page stack">
      <PageHead title="Counter">
        <Link to="/counter/prices">Price list</Link>
        {mayKnow && <Link to="/customers">Customers</Link>}
      </PageHead>
      {shown ? <Receipt sale={shown} close={() => setShown(undefined)} /> : <Till onSold={setShown} />}
      <div className="no-print">
        <Sold show={setShown} />
      </div>
    </div>
  )
}
