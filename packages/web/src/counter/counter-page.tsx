import type { Sale } from '@tessellum/contract/sales'
import { useState } from 'react'
import { usePageTitle } from '../frame/page-title'
import { Receipt } from './receipt'
import { Sold } from './sold'
import { Till } from './till'

/** Selling over the counter: what is sold now, and what has been. */
export function CounterPage() {
  usePageTitle('Counter')
  const [shown, setShown] = useState<Sale>()
  return (
    <div className="page stack">
      <div className="page-head">
        <h1>Counter</h1>
      </div>
      {shown ? <Receipt sale={shown} close={() => setShown(undefined)} /> : <Till onSold={setShown} />}
      <div className="no-print">
        <Sold show={setShown} />
      </div>
    </div>
  )
}
