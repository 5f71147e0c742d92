import { RightOutlined } from '@ant-design/icons'
import { useQuery } from '@tanstack/react-query'
import type { Competing } from '@tessellum/contract/batches'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { Link } from 'react-router'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { read } from '../shop/queries'
import { BatchState } from './batch-state'

/** Every batch, soonest due first. */
export function BatchesPage() {
  usePageTitle('Kits')
  const mayPlan = useMay('batches.plan')
  const mayAudit = useMay('audit.read')
  const maySell = useMay('sales.keep')
  const mayKeepPeople = useMay('people.keep')
  const { data: batches, error } = useQuery(read.batches)
  const { data: drafts } = useQuery(read.competing)
  if (error && !batches) return <Trouble error={error} />
  if (!batches) return <Loading what="Fetching the batches" />
  const open = batches.filter((batch) => batch.state !== 'cancelled' && batch.state !== 'closed')
  const over = batches.filter((batch) => batch.state === 'cancelled' || batch.state === 'closed')
  return (
    <div className="page stack">
      <div className="page-head">
        <h1>Kits</h1>
        <span className="spacer" />
        {maySell && <Link to="/counter">Counter</Link>}
        {mayAudit && <Link to="/audit">What was done</Link>}
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
      </div>
      {open.length === 0 && (
        <div className="empty sheet">
          <h2>No batches yet</h2>
          <p>Plan one to see what the shelf allows and to promise its beads.</p>
        </div>
      )}
      {[open, over].map(
        (list, i) =>
          list.length > 0 && (
            <div key={i === 0 ? 'open' : 'over'}>
              {i === 1 && <h2 style={{ marginBottom: 8 }}>Closed and called off</h2>}
              <div className="rows">
                {list.map((batch) => (
                  <Link className="batch-row" key={batch.id} to={`/kits/${batch.id}`}>
                    <span>
                      <span className="day figures">{dayjs(batch.dueOn).format('D')}</span>{' '}
                      <span className="quiet">{dayjs(batch.dueOn).format('MMM')}</span>
                    </span>
                    <span>
                      <strong>{batch.name}</strong>
                      <br />
                      <span className="quiet">{batch.patterns.join(', ')}</span>
                    </span>
                    <span className="figures">
                      <strong>{batch.kits}</strong> kits
                      <Allowed draft={drafts?.find(({ batchId }) => batchId === batch.id)} />
                    </span>
                    <span>
                      <BatchState state={batch.state} />
                    </span>
                    <RightOutlined aria-hidden />
                  </Link>
                ))}
              </div>
            </div>
          ),
      )}
    </div>
  )
}

/** How far the shelf goes for a draft when all drafts are served in their turn. */
function Allowed({ draft }: { draft: Competing[number] | undefined }) {
  if (!draft) return null
  if (draft.kits >= draft.wanted)
    return (
      <span className="quiet" style={{ display: 'block' }}>
        on the shelf
      </span>
    )
  return (
    <span className="trouble" style={{ display: 'block' }}>
      shelf for <strong>{draft.kits}</strong>
      {draft.limitedBy.length > 0 && <span className="visually-hidden">, short of {draft.limitedBy.join(', ')}</span>}
    </span>
  )
}
