import { useQuery } from '@tanstack/react-query'
import type { BuyLine } from '@tessellum/contract/buying'
import { counted } from '@tessellum/core/measure/counted'
import dayjs from 'dayjs'
import { Link } from 'react-router'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMoney } from '../settings/use-shop-settings'
import { read } from '../shop/queries'
import { FromSupplier } from './from-supplier'
import { OnItsWay } from './on-its-way'
import { SupplyKey } from './supply-strip'

/** What every open batch is short of and what runs low, as whole packs by supplier, with the last day to order. */
export function BuyPage() {
  usePageTitle('What to buy')
  const { data: lines, error } = useQuery(read.buyList)
  if (error && !lines) return <Trouble error={error} />
  if (!lines) return <PageLoading what="Adding up what is short" />
  // Who must be asked first stands first, as the lines do.
  const suppliers = [...new Set(lines.map(({ supplier }) => supplier))]
  return (
    <div className="page stack">
      <PageHead title="What to buy" beside={lines.length > 0 && <Whole lines={lines} suppliers={suppliers.length} />}>
        <a href="/api/buy-list/file?format=csv" download>
          As CSV
        </a>
        <a href="/api/buy-list/file?format=xlsx" download>
          As XLSX
        </a>
        <Link to="/suppliers">Suppliers</Link>
        <Link to="/kits">All batches</Link>
      </PageHead>
      {lines.length === 0 && (
        <div className="empty sheet">
          <h2>Nothing is short</h2>
          <p>The shelf fills every batch that is planned, and nothing runs low.</p>
        </div>
      )}
      {suppliers.map((supplier) => (
        <FromSupplier key={supplier} name={supplier} lines={lines.filter((line) => line.supplier === supplier)} />
      ))}
      {lines.length > 0 && <SupplyKey />}
      <OnItsWay />
    </div>
  )
}

/** All of it in a line: what it costs, and when the first of it has to be ordered. */
function Whole({ lines, suppliers }: { lines: readonly BuyLine[]; suppliers: number }) {
  const money = useMoney()
  const cost = lines.reduce((sum, line) => sum + line.cost, 0)
  const [first] = lines
  return (
    <span className="quiet figures">
      {counted(lines.length, 'item')} from {counted(suppliers, 'supplier')}, {money.say(cost)}
      {first && first.orderBy !== null && `; the first by ${dayjs(first.orderBy).format('dddd, D MMMM')}`}
    </span>
  )
}
