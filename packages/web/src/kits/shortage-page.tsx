import { useQuery } from '@tanstack/react-query'
import type { AcceptSubstitutes, ShortagePlan } from '@tessellum/contract/shortage-plan'
import { Button } from 'antd'
import { Link, useParams } from 'react-router'
import { ErrorNotice } from '../frame/error-notice'
import { Fact, Facts } from '../frame/facts'
import { FigureTable } from '../frame/figure-table'
import { Loading } from '../frame/loading'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { Swatch } from '../stock/swatch'
import styles from './shortage-page.module.css'

/** A bead that is short over all drafts: how most kits are made with the least change to be seen, batch by batch to accept. */
export function ShortagePage() {
  const itemId = Number(useParams().itemId)
  const { data, error } = useQuery(read.shortagePlan(itemId))
  usePageTitle('What could stand in')
  if (error && !data) return <Trouble error={error} />
  return data ? <ShortagePlanPage plan={data} /> : <Loading what="Weighing every substitute against every batch" />
}

const sum = (lines: readonly ShortagePlan['lines'][number][], of: (line: ShortagePlan['lines'][number]) => number) =>
  lines.reduce((total, line) => total + of(line), 0)
const standing = ({ ways }: ShortagePlan['lines'][number]) => ways.reduce((total, { kits }) => total + kits, 0)

function ShortagePlanPage({ plan }: { plan: ShortagePlan }) {
  const { lines } = plan
  const batches = [...new Map(lines.map(({ batchId, batchName }) => [batchId, batchName]))]
  const wanted = sum(lines, (line) => line.wanted)
  const without = sum(lines, (line) => line.without)
  const withAll = sum(lines, (line) => line.asPlanned + standing(line))
  return (
    <div className="page stack">
      <PageHead
        title="Shortage across batches"
        before={<Swatch item={plan.item} size={46} />}
        under={<Link to={`/stock/${plan.itemId}`}>{plan.name}</Link>}
      >
        <Link to="/kits">All batches</Link>
      </PageHead>
      {lines.length === 0 ? (
        <div className="empty sheet">
          <h2>No draft takes it</h2>
          <p>What is reserved has its beads already.</p>
        </div>
      ) : (
        <Facts>
          <Fact label="kits as planned, without substitutes">{`${without} of ${wanted}`}</Fact>
          <Fact label="kits with substitutes where they are needed">{`${withAll} of ${wanted}`}</Fact>
        </Facts>
      )}
      {!plan.proven && <p className="quiet">A better way may be found with more time.</p>}
      {batches.map(([id, name]) => (
        <OneBatch key={id} id={id} name={name} lines={lines.filter(({ batchId }) => batchId === id)} />
      ))}
    </div>
  )
}

function OneBatch({ id, name, lines }: { id: number; name: string; lines: ShortagePlan['lines'] }) {
  const mayPlan = useMay('batches.plan')
  const accept = useIdempotentMutation(
    (substitutes: AcceptSubstitutes['substitutes']) =>
      call('POST /api/batches/:id/substitutes', { params: { id }, body: { substitutes } }),
    {
      stale: ['batches', 'stock', 'buy-list', 'colourways'],
      said: `${name} is changed: its pattern, its bill and what it holds.`,
    },
  )
  const substitutes = lines.flatMap(({ lineId, ways }) => ways.map(({ kits, choices }) => ({ lineId, kits, choices })))
  return (
    <section className="rows" aria-label={name}>
      <div className="panel-head">
        <h2>
          <Link to={`/kits/${id}`}>{name}</Link>
        </h2>
        <span className="spacer" />
        {mayPlan && substitutes.length > 0 && (
          <Button type="primary" onClick={() => accept.run(substitutes)} loading={accept.busy}>
            Accept for this batch
          </Button>
        )}
      </div>
      <ErrorNotice error={accept.refused} />
      <FigureTable>
        <thead>
          <tr>
            <th scope="col">Line</th>
            <th scope="col">Wanted</th>
            <th scope="col">As planned</th>
            <th scope="col" className={styles.words}>
              With a substitute
            </th>
            <th scope="col">Still short</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => {
            const short = line.wanted - line.asPlanned - standing(line)
            return (
              <tr key={line.lineId}>
                <th scope="row">{line.of}</th>
                <td>{line.wanted}</td>
                <td>{line.asPlanned}</td>
                <td className={styles.words}>
                  {line.ways.map(({ kits, itemId, name: other, item, choices, distance }) => (
                    <span key={itemId} className={styles.under}>
                      <Swatch item={item} size={22} /> <strong>{kits}</strong> with{' '}
                      <Link to={`/stock/${itemId}`}>{other}</Link> for {choices.map(({ role }) => role).join(' and ')}
                      <span className="quiet">, {changeWord(distance)}</span>
                    </span>
                  ))}
                </td>
                <td className={short > 0 ? 'trouble' : ''}>{short > 0 ? short : 'none'}</td>
              </tr>
            )
          })}
        </tbody>
      </FigureTable>
    </section>
  )
}

/** As the distance is made up: another kind, another size, or CIEDE2000 in tenths. */
function changeWord(distance: number): string {
  if (distance >= 1000) return 'another kind of bead'
  if (distance >= 300) return 'another size'
  if (distance < 30) return 'hardly to be seen'
  if (distance < 100) return 'seen side by side'
  return 'plainly another colour'
}
