import { useQuery } from '@tanstack/react-query'
import { type PlayStandIn, type StandInName, standInNames } from '@tessellum/contract/devices'
import { counted } from '@tessellum/core/measure/counted'
import { Button, Input } from 'antd'
import { useEffect, useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { NumberField } from '../frame/number-field'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './stand-ins.module.css'

/** Every device and service of the demo that is none, to be played: what it shows, and what is wrong with it. */
export function StandInsPage() {
  usePageTitle('Simulated devices')
  const mayPlay = useMay('batches.pack')
  const { data: there } = useQuery(read.standIns)
  return (
    <div className="page stack">
      <PageHead title="Simulated devices" />
      <p className="quiet">
        In the demo, devices and the suppliers’ service are small programs that stand in for them. Set them here; the
        rest of the shop treats them as real ones.
      </p>
      {there?.length === 0 && <div className="empty sheet">Nothing is simulated here: the devices are real.</div>}
      {!mayPlay && <p className="notice">Only the owner and the stockroom can set them.</p>}
      {mayPlay && (
        <div className={styles.cards}>
          {standInNames
            .filter((name) => there?.includes(name))
            .map((name) => (
              <StandIn key={name} name={name} />
            ))}
        </div>
      )}
    </div>
  )
}

interface Played {
  readonly title: string
  readonly faults: readonly string[]
  readonly told: (state: Record<string, unknown>) => string
}

const played: Readonly<Record<StandInName, Played>> = {
  scale: {
    title: 'Scale',
    faults: ['rubbish', 'silent', 'half-line', 'drift', 'shaking', 'overload'],
    told: ({ grams }) => `${String(grams)} g lie on it`,
  },
  printer: {
    title: 'Label printer',
    faults: ['jam', 'slow', 'silent'],
    told: ({ paper, printed, last }) =>
      `${String(paper)} sheets in it, ${String(printed)} jobs came out${last ? `; the last as ${String(last)}` : ''}`,
  },
  scanner: {
    title: 'Hand scanner',
    faults: ['garbled', 'twice'],
    told: ({ last }) => (last ? `last scanned ${String(last)}` : 'nothing scanned yet'),
  },
  supplier: {
    title: 'Suppliers’ service',
    faults: ['late', 'failing', 'rubbish', 'currency'],
    told: ({ times, daysMore, asked }) =>
      `asked ${counted(Number(asked), 'time')}; prices times ${String(times)}, ${counted(Number(daysMore), 'day')} later than usual`,
  },
}

/** One stand-in. @param name of those there are */
export function StandIn({ name }: { name: StandInName }) {
  const { title, faults, told } = played[name]
  const [state, setState] = useState<{ faults: string[]; [key: string]: unknown }>()
  const { run, refused } = useIdempotentMutation(
    (body: PlayStandIn) => call('POST /api/stand-ins/:name', { params: { name }, body }),
    {
      after: setState,
    },
  )
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once what it shows
  useEffect(() => run({}), [])
  const on = new Set(state?.faults)
  return (
    <section className="sheet pad stack" aria-label={title}>
      <h2>{title}</h2>
      <p className={`quiet figures ${styles.long}`} role="status">
        {state ? told(state) : 'asking it'}
      </p>
      {name === 'scale' && (
        <WithFigure label="On the pan, g" start={0.4} act="Put on the pan" run={(grams) => run({ grams })} />
      )}
      {name === 'printer' && (
        <WithFigure label="Sheets" start={50} act="Put in paper" run={(paper) => run({ paper })} />
      )}
      {name === 'scanner' && <Scan scan={(scan) => run({ scan })} />}
      {name === 'supplier' && (
        <WithFigure label="Prices times" start={1.1} act="Make dearer" run={(times) => run({ times })} />
      )}
      <div className="hands">
        {name === 'scale' && <Button onClick={() => run({ grams: 0 })}>Take off</Button>}
        {name === 'printer' && <Button onClick={() => run({ paper: 0 })}>Take the paper out</Button>}
        {name === 'supplier' && <Button onClick={() => run({ daysMore: 7 })}>A week later</Button>}
        {(name === 'scale' || name === 'scanner') && <Button onClick={() => run({ drop: true })}>Pull the plug</Button>}
        {faults.map((fault) => (
          <Button
            key={fault}
            size="small"
            type={on.has(fault) ? 'primary' : 'default'}
            aria-pressed={on.has(fault)}
            onClick={() => run({ fault, on: !on.has(fault) })}
          >
            {fault}
          </Button>
        ))}
      </div>
      <ErrorNotice error={refused} />
    </section>
  )
}

function WithFigure({
  label,
  start,
  act,
  run,
}: {
  label: string
  start: number
  act: string
  run: (figure: number) => void
}) {
  const [figure, setFigure] = useState<number | null>(start)
  return (
    <div className="hands">
      <NumberField aria-label={label} min={0} max={9999} step={0.1} value={figure} onChange={setFigure} />
      <Button onClick={() => figure !== null && run(figure)}>{act}</Button>
    </div>
  )
}

function Scan({ scan }: { scan: (code: string) => void }) {
  const [code, setCode] = useState('')
  return (
    <div className="hands">
      <Input
        aria-label="A code"
        value={code}
        onChange={({ target }) => setCode(target.value)}
        onPressEnter={() => code && scan(code)}
        maxLength={200}
        className={styles.code ?? ''}
      />
      <Button onClick={() => code && scan(code)}>Scan it</Button>
    </div>
  )
}
