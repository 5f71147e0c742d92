import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { Found } from '@tessellum/contract/devices'
import type { Packing, PackingTask } from '@tessellum/contract/packing'
import { type Reading, readingOf } from '@tessellum/core/kit/packing'
import { counted } from '@tessellum/core/measure/counted'
import { sayMass } from '@tessellum/core/measure/units'
import { perSpoken, sayFinely, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { Button } from 'antd'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { StandIn } from '../devices/stand-ins-page'
import { ErrorNotice } from '../frame/error-notice'
import { NumberField, type NumberFieldRef } from '../frame/number-field'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { Swatch } from '../stock/swatch'
import { Mishaps } from './mishaps'
import styles from './packing.module.css'
import { Scan } from './scan'
import { goneWords, useScale } from './use-scale'

export function PackingPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.packing(id))
  usePageTitle(data ? `Packing ${data.name}` : 'Packing')
  if (error && !data) return <Trouble error={error} />
  return data ? <PackingBench packing={data} /> : <PageLoading what="Laying out the bags" />
}

type Bag = PackingTask['bags'][number]

const filledIn = ({ bags }: PackingTask) => bags.filter(({ filled }) => filled !== null).length

/** One bead at a time through all the bags: a tube is opened once. */
function PackingBench({ packing }: { packing: Packing }) {
  const { tasks } = packing
  const open = tasks.findIndex((task) => filledIn(task) < task.bags.length)
  const [chosen, setChosen] = useState<number>()
  const at = chosen ?? Math.max(0, open)
  const task = tasks[at]
  const [again, setAgain] = useState<Bag>()
  const { data: standIns } = useQuery(read.standIns)
  const printOne = useIdempotentMutation(
    ({ lineId, kit }: Pick<Bag, 'lineId' | 'kit'>) =>
      call('POST /api/batches/:id/labels', { params: { id: packing.id }, body: { of: 'both', lineId, kit } }),
    { said: ({ printed }) => `${counted(printed, 'label')} printed.` },
  )
  /** A tube is opened, or a bag, by its label; what belongs elsewhere is told. */
  const scanned = (code: Found): string | undefined => {
    if (code.kind === 'bag') {
      if (code.batchId !== packing.id) return `That bag is for ${code.batchName}.`
      const of =
        code.itemId === null
          ? at
          : tasks.findIndex(
              (each) =>
                each.itemId === code.itemId &&
                each.bags.some((each) => each.lineId === code.lineId && each.kit === code.kit),
            )
      const found = tasks[of]?.bags.find((each) => each.lineId === code.lineId && each.kit === code.kit)
      if (!found) return 'That bag is not in this batch any more.'
      setChosen(of)
      setAgain(found)
      return undefined
    }
    const of = tasks.findIndex((each) =>
      code.kind === 'lot'
        ? each.lotId === code.lotId
        : each.itemId === code.itemId && filledIn(each) < each.bags.length,
    )
    if (of < 0) {
      const other = tasks.find((each) => each.itemId === code.itemId)
      if (!other) return `${code.name} is in none of these bags.`
      return code.kind === 'lot'
        ? `Lot ${code.lotCode} is the wrong tube: these bags are filled from lot ${other.lotCode}.`
        : `Every bag has its ${code.name}.`
    }
    setChosen(of)
    setAgain(undefined)
    return undefined
  }
  const bags = tasks.reduce((sum, each) => sum + each.bags.length, 0)
  const filled = tasks.reduce((sum, each) => sum + filledIn(each), 0)
  const bag = again ?? task?.bags.find((each) => each.filled === null)
  return (
    <div className="page stack">
      <PageHead
        title={<>Packing {packing.name}</>}
        under={
          <span className="quiet figures">
            {filled} of {bags} filled, for {counted(packing.kits, 'kit')}
          </span>
        }
      >
        <div className={styles.scan}>
          <Scan take={scanned} />
        </div>
        <Link to={`/kits/${packing.id}`}>The batch</Link>
      </PageHead>
      {tasks.length === 0 && packing.state === 'packed' && (
        <>
          <p className="notice">All these kits stood packed on the shelf; there is nothing to put into bags.</p>
          <Close packing={packing} />
        </>
      )}
      {tasks.length === 0 && packing.state !== 'packed' && (
        <p className="notice">
          Nothing is laid out for this batch. Reserve it first; if it has been for long, give it back and reserve it
          again.
        </p>
      )}
      <div className={styles.page}>
        <ol className={`rows ${styles.tasks}`} aria-label="Beads to pack">
          {tasks.map((each, i) => (
            <li key={`${each.itemId} ${each.lotId}`} className={i === at ? styles.now : ''}>
              <button
                type="button"
                onClick={() => {
                  setChosen(i)
                  setAgain(undefined)
                }}
                aria-current={i === at}
              >
                <Swatch item={each.item} />
                <span>
                  {each.name}
                  {each.lotId === null ? (
                    <strong className="trouble"> nothing promised</strong>
                  ) : (
                    <span className="quiet">
                      {' '}
                      lot <span className="code">{each.lotCode}</span>
                      {each.place && `, ${each.place}`}
                    </span>
                  )}
                </span>
                <strong className="figures">
                  {filledIn(each)}/{each.bags.length}
                </strong>
              </button>
            </li>
          ))}
        </ol>
        {task && (
          <section className={`sheet ${styles.bag}`} aria-label="This bag">
            {task.cautions && <p className="notice trouble">{task.cautions}</p>}
            {task.lotId === null ? null : bag ? (
              <Fill
                key={`${task.itemId} ${bag.lineId} ${bag.kit}`}
                packing={packing}
                task={task}
                bag={bag}
                done={() => {
                  setAgain(undefined)
                  if (filledIn(task) + 1 >= task.bags.length) setChosen(undefined)
                }}
              />
            ) : (
              <p className="notice good">Every bag has its {task.name}.</p>
            )}
            <Bags packing={packing} task={task} now={bag} change={setAgain} print={printOne.run} />
            <ErrorNotice error={printOne.refused} />
            {packing.state === 'packed' && <Close packing={packing} />}
            {packing.state !== 'closed' && (
              <Mishaps key={`${task.itemId} ${task.lotId}`} packing={packing} task={task} />
            )}
            {standIns?.includes('scale') && (
              <details className={styles.standIn}>
                <summary className="quiet">Set the scale</summary>
                <StandIn name="scale" />
              </details>
            )}
          </section>
        )}
      </div>
    </div>
  )
}

const readingWords: Readonly<Record<Reading, string>> = { under: 'too little', in: 'right', over: 'too much' }

interface FillProps {
  readonly packing: Packing
  readonly task: PackingTask
  readonly bag: Bag
  readonly done: () => void
}

/** What the scale shows goes in by hand or from the scale; Enter goes on to the next bag. */
function Fill({ packing, task, bag, done }: FillProps) {
  const client = useQueryClient()
  const field = useRef<NumberFieldRef>(null)
  const [typed, setTyped] = useState<number | null>(task.unit === 'mg' ? null : bag.target / perSpoken[task.unit])
  useEffect(() => field.current?.focus(), [])
  const news = useScale()
  const weighed = task.unit === 'mg' && news && 'mg' in news ? news : undefined
  // The bag before must have left the pan, or its weight would be taken for this one's.
  const [emptied, setEmptied] = useState(false)
  if (weighed && !emptied && weighed.mg < bag.least / 2) setEmptied(true)
  // What is typed goes before what the scale shows; the scale's is taken once it is steady.
  const quantity =
    typed !== null
      ? Math.round(typed * perSpoken[task.unit])
      : weighed && emptied && weighed.mg > 0
        ? weighed.mg
        : undefined
  const reading = quantity === undefined ? undefined : readingOf(bag, quantity)
  const ready = reading === 'in' && (typed !== null || (weighed?.steady ?? false))
  const fill = useIdempotentMutation(
    (amount: number) =>
      call('PUT /api/batches/:id/bags', {
        params: { id: packing.id },
        body: {
          lineId: bag.lineId,
          kit: bag.kit,
          itemId: task.itemId,
          quantity: amount,
          lotId: task.lotId ?? undefined,
        },
      }),
    {
      of: `packing ${packing.id}`,
      stale: ['batches'],
      after: (answer) => {
        client.setQueryData(read.packing(packing.id).queryKey, answer)
        done()
      },
    },
  )
  const enter = () => {
    if (quantity !== undefined && ready && !fill.busy) fill.run(quantity)
  }
  return (
    <div className={styles.fill}>
      <p className="quiet">
        Bag {bag.kit}, {bag.of}: <strong>{bag.roles}</strong>
      </p>
      <h2>{task.name}</h2>
      <p className={`${styles.target} figures`} role="status">
        {sayQuantity(bag.target, task.unit)}
      </p>
      <p className="quiet figures">
        {bag.beads !== null && `${counted(bag.beads, 'bead')}, `}
        from {sayFinely(task.unit === 'mg' ? Math.ceil(bag.least / 10) * 10 : bag.least, task.unit)} to{' '}
        {sayFinely(bag.most, task.unit)}; lot {task.lotCode}
      </p>
      <div className="hands">
        <NumberField
          ref={field}
          aria-label={`In the bag, ${spokenUnit[task.unit]}`}
          size="large"
          min={0}
          value={typed}
          onChange={setTyped}
          onPressEnter={enter}
          className={styles.weight ?? ''}
          suffix={spokenUnit[task.unit]}
        />
        <Button type="primary" size="large" onClick={enter} disabled={!ready} loading={fill.busy}>
          Next bag
        </Button>
        {reading && (
          <strong className={`${styles.reading} ${styles[reading] ?? ''}`} role="status">
            {readingWords[reading]}
          </strong>
        )}
      </div>
      {task.unit === 'mg' && (
        <p className="figures" role="status">
          {weighed ? (
            <>
              On the scale: <strong>{sayMass(weighed.mg)}</strong>{' '}
              <span className="quiet">{weighed.steady ? 'steady' : 'moving'}</span>
              {!emptied && typed === null && <span className="quiet">, take the last bag off first</span>}
            </>
          ) : (
            <span className="quiet">{news && 'gone' in news ? goneWords[news.gone] : 'Looking for the scale'}</span>
          )}
        </p>
      )}
      <ErrorNotice error={fill.refused} />
    </div>
  )
}

interface BagsProps {
  readonly packing: Packing
  readonly task: PackingTask
  readonly now: Bag | undefined
  readonly change: (bag: Bag) => void
  readonly print: (bag: Bag) => void
}

/** All the bags of this bead; a filled one is corrected, or emptied back into its tube. */
function Bags({ packing, task, now, change, print }: BagsProps) {
  const client = useQueryClient()
  const empty = useIdempotentMutation(
    ({ lineId, kit }: Bag) =>
      call('POST /api/batches/:id/bags/empty', {
        params: { id: packing.id },
        body: { lineId, kit, itemId: task.itemId },
      }),
    {
      of: `packing ${packing.id}`,
      tell: true,
      after: (answer) => void client.setQueryData(read.packing(packing.id).queryKey, answer),
    },
  )
  return (
    <ul className={styles.bags} aria-label="Bags">
      {task.bags.map((bag) => {
        const name = `Bag ${bag.kit}, ${bag.of}`
        const current = now && bag.lineId === now.lineId && bag.kit === now.kit
        return (
          <li key={`${bag.lineId} ${bag.kit}`} className={current ? styles.now : ''}>
            <span className="figures">{bag.kit}</span>
            <span>{bag.filled === null ? 'empty' : `${sayFinely(bag.filled, task.unit)}, ${bag.by}`}</span>
            {bag.filled !== null && packing.state !== 'closed' && (
              <>
                <Button size="small" type="link" onClick={() => change(bag)} aria-label={`Change ${name}`}>
                  Change
                </Button>
                <Button size="small" type="link" onClick={() => empty.run(bag)} aria-label={`Empty ${name}`}>
                  Empty
                </Button>
              </>
            )}
            {packing.state !== 'closed' && (
              <Button size="small" type="link" onClick={() => print(bag)} aria-label={`Labels of ${name}`}>
                Labels
              </Button>
            )}
          </li>
        )
      })}
    </ul>
  )
}

/** Everything is in its bag: the shelf gives up what was used, and gets back what was promised beyond it. */
function Close({ packing }: { packing: Packing }) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const close = useIdempotentMutation(
    (_: undefined) => call('POST /api/batches/:id/close', { params: { id: packing.id } }),
    {
      of: `packing ${packing.id}`,
      stale: ['batches', 'stock', 'buy-list'],
      said: `${packing.name} is closed.`,
      after: (answer) => {
        client.setQueryData(read.packing(packing.id).queryKey, answer)
        void navigate(`/kits/${packing.id}`)
      },
    },
  )
  return (
    <div className="notice good">
      <p>{packing.kits === 1 ? 'The one kit is packed.' : `All ${counted(packing.kits, 'kit')} are packed.`}</p>
      <Button type="primary" onClick={() => close.run(undefined)} loading={close.busy}>
        Close the batch
      </Button>
      <ErrorNotice error={close.refused} />
    </div>
  )
}
