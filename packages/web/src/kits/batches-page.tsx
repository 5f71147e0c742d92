import { useQuery } from '@tanstack/react-query'
import { Button } from 'antd'
import { Link } from 'react-router'
import { ListFilterBar, useListFilter } from '../frame/list-filter'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { read } from '../shop/queries'
import { isOver, listed, orders, shown } from './batch-list'
import { BatchRow } from './batch-row'
import styles from './batches-page.module.css'

/** Every batch: what is open first, as it is filtered and sorted. */
export function BatchesPage() {
  usePageTitle('Kits')
  const mayPlan = useMay('batches.plan')
  const mayAudit = useMay('audit.read')
  const maySell = useMay('sales.keep')
  const mayKeepPeople = useMay('people.keep')
  const { filter, change } = useListFilter(shown, orders)
  const { data: batches, error } = useQuery(read.batches)
  const { data: drafts = [] } = useQuery(read.competing)
  if (error && !batches) return <Trouble error={error} />
  if (!batches) return <PageLoading what="Fetching the batches" />
  const found = listed(batches, drafts, filter)
  const [open, over] = [found.filter((batch) => !isOver(batch)), found.filter(isOver)]
  return (
    <div className="page stack">
      <PageHead title="Kits">
        {maySell && <Link to="/counter">Counter</Link>}
        {mayAudit && <Link to="/audit">Activity</Link>}
        {mayKeepPeople && <Link to="/people">People</Link>}
        <Link to="/kits/make">How many can I make?</Link>
        <Link to="/kits/buy">
          <Button>What to buy</Button>
        </Link>
        {mayPlan && (
          <Link to="/kits/plan">
            <Button type="primary">Plan a batch</Button>
          </Link>
        )}
      </PageHead>
      {batches.length > 0 && (
        <ListFilterBar
          filter={filter}
          change={change}
          shown={shown.map((show) => ({
            value: show,
            label: show === 'all' ? 'all' : `${show} (${listed(batches, drafts, { ...filter, show }).length})`,
          }))}
          orders={orders}
          find="Find a batch"
          findBy="Name or pattern"
        />
      )}
      {batches.length === 0 && (
        <div className="empty sheet">
          <h2>No batches yet</h2>
          <p>Plan one to see what the shelf allows and to promise its beads.</p>
        </div>
      )}
      {batches.length > 0 && found.length === 0 && <div className="empty sheet">No batch fits that.</div>}
      {[open, over].map(
        (list, i) =>
          list.length > 0 && (
            <div key={i === 0 ? 'open' : 'over'}>
              {i === 1 && <h2 className={styles.heading}>Closed and called off</h2>}
              <div className="rows">
                {list.map((batch) => (
                  <BatchRow key={batch.id} batch={batch} draft={drafts.find(({ batchId }) => batchId === batch.id)} />
                ))}
              </div>
            </div>
          ),
      )}
    </div>
  )
}
