import { useQuery } from '@tanstack/react-query'
import type { AcceptSubstitutes, ShortagePlan } from '@tessellum/contract/shortage-plan'
import { Button } from 'antd'
import { Link, useParams } from 'react-router'
import { ErrorNotice } from '../frame/error-notice'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

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
      <div className="page-head">
        <svg className="swatch" width="30" height="30" aria-hidden="true">
          <rect x="1" y="1" width="28" height="28" rx="8" fill={plan.colour} stroke="#22302b" />
        </svg>
        <div>
          <h1>Shortage across batches</h1>
          <Link to={`/stock/${plan.itemId}`}>{plan.name}</Link>
        </div>
        <span className="spacer" />
        <Link to="/kits">All batches</Link>
      </div>
      {lines.length === 0 ? (
        <div className="empty sheet">
          <h2>No draft takes it</h2>
          <p>What is reserved has its beads already.</p>
        </div>
      ) : (
        <div className="sheet facts">
          <Figure figure={`${without} of ${wanted}`} label="kits as planned, without substitutes" />
          <Figure figure={`${withAll} of ${wanted}`} label="kits with substitutes where they are needed" />
          {!plan.proven && <span className="quiet">A better way may be found with more time.</span>}
        </div>
      )}
      {batches.map(([id, name]) => (
        <OneBatch key={id} id={id} name={name} lines={lines.filter(({ batchId }) => batchId === id)} />
      ))}
    </div>
  )
}

const Figure = ({ figure, label }: { figure: string; label: string }) => (
  <div className="fact">
    <div className="figure">{figure}</div>
    <div className="label">{label}</div>
  </div>
)

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
      <table className="figures size-table">
        <thead>
          <tr>
            <th scope="col">Line</th>
            <th scope="col">Wanted</th>
            <th scope="col">As planned</th>
            <th scope="col" style={{ textAlign: 'left' }}>
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
                <td style={{ textAlign: 'left' }}>
                  {line.ways.map(({ kits, itemId, name: other, colour, choices, distance }) => (
                    <span key={itemId} style={{ display: 'block' }}>
                      <svg className="swatch" width="15" height="15" aria-hidden="true">
                        <rect x="0.5" y="0.5" width="14" height="14" rx="4" fill={colour} stroke="#22302b" />
                      </svg>{' '}
                      <strong>{kits}</strong> with <Link to={`/stock/${itemId}`}>{other}</Link> for{' '}
                      {choices.map(({ role }) => role).join(' and ')}
                      <span className="quiet">, {changeWord(distance)}</span>
                    </span>
                  ))}
                </td>
                <td className={short > 0 ? 'trouble' : ''}>{short > 0 ? short : 'none'}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
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
