import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type Batch, batchLine } from '@tessellum/contract/batches'
import { counted } from '@tessellum/core/measure/counted'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link, useLocation, useParams } from 'react-router'
import { AskFirst } from '../frame/ask-first'
import { FigureTable } from '../frame/figure-table'
import { NumberField } from '../frame/number-field'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { StateTag } from '../frame/state-tag'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { BatchCost } from './batch-cost'
import styles from './batch-page.module.css'
import { BatchPapers } from './batch-papers'
import { BatchState } from './batch-state'
import { CouldMake } from './could-make'
import { Limits } from './limits'
import { Returns } from './returns'
import { Turn, turnWords } from './turn'

export function BatchPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.batch(id))
  usePageTitle(data?.name ?? 'Kits')
  if (error && !data) return <Trouble error={error} />
  return data ? <Plan batch={data} /> : <PageLoading what="Fetching the batch" />
}

type BatchAction = 'reserve' | 'release' | 'cancel' | 'plan-again'

const inPacking: ReadonlySet<Batch['state']> = new Set(['reserved', 'packing', 'packed'])

const done: Readonly<Record<BatchAction, string>> = {
  reserve: 'Reserved: the shelf promises it all.',
  release: 'Given back to the shelf.',
  cancel: 'Called off; everything it held is given back.',
  'plan-again': 'Planned again, with the lines it had.',
}

/** One batch: its lines, what it takes from the shelf, and whether the shelf has promised it. */
function Plan({ batch }: { batch: Batch }) {
  const client = useQueryClient()
  const left: { toEmpty?: readonly string[] } | null = useLocation().state
  const mayReserve = useMay('batches.reserve')
  const mayPlan = useMay('batches.plan')
  const mayPack = useMay('batches.pack')
  const settle = (answer: Batch) => {
    client.setQueryData(read.batch(batch.id).queryKey, answer)
    void client.invalidateQueries({ queryKey: read.batches.queryKey, exact: true })
    void client.invalidateQueries({ queryKey: read.items.queryKey })
  }
  const act = useIdempotentMutation(
    (doing: BatchAction) => call(`POST /api/batches/:id/${doing}`, { params: { id: batch.id } }),
    {
      of: `batch ${batch.id}`,
      stale: ['batches'],
      said: (_, doing) => done[doing],
      undo: (_, doing) =>
        doing === 'reserve' ? () => call('POST /api/batches/:id/release', { params: { id: batch.id } }) : undefined,
      after: settle,
    },
  )
  const change = useIdempotentMutation(
    ({ kits, newest }: { kits: readonly number[]; newest?: number }) =>
      call('PUT /api/batches/:id/lines', {
        params: { id: batch.id },
        body: {
          lines: batch.lines.map(({ id, patternId, version, size, colourwayId, colourwayVersion }, i) => ({
            id,
            patternId,
            version,
            size,
            colourwayId,
            // What it was planned with is kept, unless the newest is asked for.
            ...(i === newest ? {} : { colourwayVersion }),
            kits: kits[i] ?? 0,
          })),
        },
      }),
    {
      of: `batch ${batch.id}`,
      stale: ['packing'],
      after: (answer) => {
        settle(answer)
        setToEmpty(answer.toEmpty)
      },
    },
  )
  // Bags that the last change left over: they go back into their tubes.
  const [toEmpty, setToEmpty] = useState<readonly string[]>(left?.toEmpty ?? [])
  const refused = act.refused ?? change.refused
  const { outlook } = batch
  const draft = batch.state === 'draft'
  // Nothing was put into bags for it.
  const allReady = batch.state === 'packed' && batch.lines.every(({ kits }, i) => outlook.lines[i]?.ready === kits)
  const changeable = draft || inPacking.has(batch.state)
  return (
    <div className="page stack">
      <PageHead
        title={batch.name}
        under={
          <span className="quiet">
            due {dayjs(batch.dueOn).format('dddd, D MMMM YYYY')} ·{' '}
            <span className="figures">{counted(batch.kits, 'kit')}</span>
            {batch.priority !== 2 && changeable && ` · ${turnWords[batch.priority]}`}
          </span>
        }
        beside={
          <>
            <BatchState state={batch.state} />
            {draft && (
              <StateTag look={outlook.ready ? 'ready' : 'short'}>
                {outlook.ready ? 'the shelf has it all' : 'short'}
              </StateTag>
            )}
          </>
        }
      >
        {mayReserve && draft && (
          <Button
            type="primary"
            size="large"
            onClick={() => act.run('reserve')}
            loading={act.busy}
            disabled={!outlook.ready}
          >
            Reserve {counted(batch.kits, 'kit')}
          </Button>
        )}
        {mayReserve && (batch.state === 'reserved' || allReady) && (
          <Button onClick={() => act.run('release')} loading={act.busy}>
            Give back
          </Button>
        )}
        {mayPack && inPacking.has(batch.state) && (
          <Link to={`/kits/${batch.id}/pack`}>
            <Button type="primary" size="large">
              {batch.state === 'packed' ? 'Look at the bags' : 'Pack'}
            </Button>
          </Link>
        )}
        {mayPlan && batch.state === 'cancelled' && (
          <Button type="primary" onClick={() => act.run('plan-again')} loading={act.busy}>
            Plan it again
          </Button>
        )}
        {mayPlan && changeable && (
          <Link to={`/kits/${batch.id}/change`}>
            <Button>Change</Button>
          </Link>
        )}
        {mayPlan && changeable && <Turn batch={batch} settle={settle} />}
        {mayPlan && changeable && (
          <AskFirst
            title="Call off this batch?"
            follows="Everything it holds is given back to the shelf. Its lines are kept, and it can be planned again."
            ok="Call the batch off"
            run={() => act.run('cancel')}
          >
            <Button danger loading={act.busy}>
              Call off
            </Button>
          </AskFirst>
        )}
      </PageHead>
      {refused && (
        <div role="alert" className="notice trouble">
          {refused.message} {refused.hint}
        </div>
      )}
      {draft && !outlook.proven && (
        <div className="notice" role="status">
          Working out the best filling took too long: this one is good, and a better one may be found with fewer lines.
        </div>
      )}
      {toEmpty.length > 0 && (
        <div className="notice trouble" role="status">
          Put back into their tubes:
          <ul>
            {toEmpty.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </div>
      )}
      {batch.state === 'reserved' && (
        <div className="notice good">
          The shelf holds everything for these kits. Nobody else can be promised the same beads.
        </div>
      )}
      <div className="rows">
        {batch.lines.map((line, i) => (
          <div key={i} className={styles.line}>
            <div className={styles.lineHead}>
              {changeable && mayPlan ? (
                <Kits
                  key={line.kits}
                  kits={line.kits}
                  busy={change.busy}
                  save={(kits) => change.run({ kits: batch.lines.map((each, at) => (at === i ? kits : each.kits)) })}
                />
              ) : (
                <strong className={`figures ${styles.kits}`}>{line.kits}</strong>
              )}
              <div className={styles.grow}>
                <Link
                  to={`/patterns/${line.patternId}/written?version=${line.version}&size=${line.size}&colourway=${line.colourwayId}&colourwayVersion=${line.colourwayVersion}`}
                >
                  <strong>{line.title}</strong>
                </Link>
                , version {line.version}
                {line.size && `, ${line.size}`}, in {line.colourway}{' '}
                <span className="quiet">
                  (version {line.colourwayVersion}
                  {line.ownColourway && ', for this batch only'})
                </span>
                <br />
                {outlook.lines[i] && (draft || batch.state === 'reserved') && (
                  <CouldMake line={outlook.lines[i]} kits={line.kits} items={outlook.items} />
                )}
              </div>
            </div>
            {changeable && mayPlan && (
              <WaysOut
                batch={batch}
                line={i}
                busy={change.busy}
                again={() => change.run({ kits: batch.lines.map((each) => each.kits), newest: i })}
              />
            )}
            <Erratum patternId={line.patternId} version={line.version} />
            <KitBill batch={batch} line={i} />
          </div>
        ))}
      </div>
      <BatchCost batch={batch} />
      <BatchPapers batch={batch} />
      {batch.state === 'closed' && <Returns batchId={batch.id} />}
      {(draft || batch.state === 'reserved') && outlook.items.length > 0 && (
        <div className="rows">
          <Limits items={outlook.items} />
        </div>
      )}
    </div>
  )
}

/** A line whose version has been corrected since says so. */
function Erratum({ patternId, version }: { patternId: number; version: number }) {
  const { data } = useQuery(read.pattern(patternId))
  const errata = data?.versions.filter(({ corrects }) => corrects === version) ?? []
  return errata.map(({ number, note }) => (
    <p key={number} className="notice trouble">
      Version {version} has an erratum, mended in <Link to={`/patterns/${patternId}/versions`}>version {number}</Link>:{' '}
      {note}
    </p>
  ))
}

interface WaysOutProps {
  readonly batch: Batch
  readonly line: number
  readonly busy: boolean
  /** Plans the same lines with the colourways as they are now. */
  readonly again: () => void
}

/** Ways out for a line that is short: what could stand in, and planning anew once the colourway has it. */
function WaysOut({ batch, line: at, busy, again }: WaysOutProps) {
  const line = batch.lines[at]
  const { data: colourways } = useQuery({ ...read.colourways(line?.patternId ?? 0), enabled: line !== undefined })
  if (!line) return null
  const now = colourways?.find(({ id }) => id === line.colourwayId)
  const short = new Set(batch.outlook.items.filter((item) => item.short > 0).map(({ itemId }) => itemId))
  const roles = (batch.outlook.lines[at]?.bill ?? [])
    .filter(({ itemId, unit }) => short.has(itemId) && unit !== 'mm')
    .flatMap((each) => each.roles)
  const to = (role: string) =>
    `/patterns/${line.patternId}/colours?${new URLSearchParams({
      colourway: String(line.colourwayId),
      size: line.size,
      instead: role,
      batch: String(batch.id),
      line: String(at + 1),
      kits: String(line.kits),
    })}`
  return (
    <>
      {roles.length > 0 && (
        <div className={`hands ${styles.lineActs}`}>
          {[...short].map((itemId) => (
            <Link key={itemId} to={`/kits/shortage/${itemId}`}>
              <strong>
                Find substitutes in all batches for {batch.outlook.items.find((item) => item.itemId === itemId)?.name}
              </strong>
            </Link>
          ))}
          {roles.map((role) => (
            <Link key={role} to={to(role)}>
              What could stand in for {role}?
            </Link>
          ))}
        </div>
      )}
      {now && now.version > line.colourwayVersion && (
        <div className={`hands notice ${styles.below}`}>
          <span>
            {now.name} is version {now.version} now; this line keeps version {line.colourwayVersion}.
          </span>
          <Button size="small" loading={busy} onClick={again}>
            Plan with version {now.version}
          </Button>
        </div>
      )}
    </>
  )
}

/** The number of kits, changed in place: Enter or leaving the field saves it. */
function Kits({ kits, busy, save }: { kits: number; busy: boolean; save: (kits: number) => void }) {
  const [typed, setTyped] = useState<number | null>(kits)
  const wrong =
    typed === null ? 'Give the number of kits.' : batchLine.shape.kits.safeParse(typed).error?.issues[0]?.message
  const settle = () => {
    if (!wrong && typed !== null && typed !== kits) save(typed)
  }
  return (
    <span className={styles.turn}>
      <NumberField
        aria-label="Kits"
        size="large"
        className={styles.kitsField ?? ''}
        value={typed}
        disabled={busy}
        onChange={setTyped}
        onBlur={settle}
        onPressEnter={settle}
        {...(wrong ? { status: 'error' as const } : {})}
      />
      {wrong && (
        <span role="alert" className={`trouble ${styles.under}`}>
          {wrong}
        </span>
      )}
    </span>
  )
}

/** What goes into each bag. */
function KitBill({ batch, line }: { batch: Batch; line: number }) {
  const units = useUnits()
  const { outlook } = batch
  const bill = outlook.lines[line]?.bill ?? []
  if (bill.length === 0) return null
  return (
    <details className={styles.bill}>
      <summary className="quiet">What goes into each kit</summary>
      <FigureTable words>
        <tbody>
          {bill.map((each) => {
            const item = outlook.items.find((one) => one.itemId === each.itemId)
            return (
              <tr key={each.itemId}>
                <th scope="row">{each.roles.join(' + ')}</th>
                <td>{item?.name}</td>
                <td>
                  {each.unit === 'mm' ? units.quantity(each.exact, 'mm') : `${each.exact} exact`}
                  {each.unit !== 'mm' && each.spare > 0 ? ` + ${each.spare} spare` : ''}
                </td>
                <td>
                  <strong>{units.quantity(each.quantity, each.unit)}</strong>
                  {each.unit === 'mg' && <span className="quiet"> (about {each.standsFor})</span>}
                </td>
              </tr>
            )
          })}
        </tbody>
      </FigureTable>
    </details>
  )
}
