import { useQuery } from '@tanstack/react-query'
import { type Batch, type BatchLine, batchLine, newBatch } from '@tessellum/contract/batches'
import { Button, DatePicker, Form, Input } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useDeferredValue, useMemo } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm, useKept } from '../frame/kept-form'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useToday } from '../settings/use-today'
import { call, type ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { CouldMake } from './could-make'
import { Limits } from './limits'
import { type ChangeLine, type LineFields, LineForm } from './line-form'
import styles from './plan-page.module.css'

interface Fields {
  readonly name: string
  readonly dueOn: Dayjs
}

interface Planned {
  readonly name: string
  readonly dueOn: string
  readonly lines: readonly BatchLine[]
}

/** Lines that say all that a line must. */
const wholeLines = (lines: readonly LineFields[]): BatchLine[] =>
  lines.map((line) => batchLine.safeParse(line)).flatMap((read) => (read.success ? [read.data] : []))

export function PlanPage() {
  usePageTitle('Plan a batch')
  const navigate = useNavigate()
  const [params] = useSearchParams()
  const first = Number(params.get('pattern')) || undefined
  return (
    <PlanForm
      title="Plan a batch"
      name={`plan-${first ?? 'any'}`}
      lines={[{ patternId: first }]}
      save={(body) => call('POST /api/batches', { body })}
      done={({ id }) => void navigate(`/kits/${id}`)}
    />
  )
}

/** A batch planned otherwise: its name, its day, its patterns, sizes and colourways. */
export function ChangePlanPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.batch(id))
  usePageTitle(data ? `Change ${data.name}` : 'Kits')
  if (error && !data) return <Trouble error={error} />
  return data ? <ChangePlan batch={data} /> : <PageLoading what="Fetching the batch" />
}

function ChangePlan({ batch }: { batch: Batch }) {
  const navigate = useNavigate()
  return (
    <PlanForm
      title={`Change ${batch.name}`}
      name={`plan-of-${batch.id}`}
      batchId={batch.id}
      fields={{ name: batch.name, dueOn: dayjs(batch.dueOn) }}
      lines={batch.lines.map(({ id, patternId, version, size, colourwayId, colourwayVersion, kits }) => ({
        id,
        patternId,
        version,
        size,
        colourwayId,
        colourwayVersion,
        kits,
      }))}
      save={(body) => call('PUT /api/batches/:id/lines', { params: { id: batch.id }, body })}
      done={({ toEmpty }) => void navigate(`/kits/${batch.id}`, { state: { toEmpty } })}
    />
  )
}

interface PlanFormProps<Answer> {
  readonly title: string
  /** Under which what is typed is kept. */
  readonly name: string
  readonly fields?: Fields
  readonly lines: readonly LineFields[]
  /** The batch that is changed. */
  readonly batchId?: number
  readonly save: (planned: Planned) => Promise<Answer>
  readonly done: (answer: Answer) => void
}

/** Planning a batch: what it takes and what the shelf allows, as it is being typed. */
function PlanForm<Answer>({ title, name, fields, lines: initial, batchId, save, done }: PlanFormProps<Answer>) {
  const today = useToday()
  const { data: patterns } = useQuery(read.patterns)
  const kept = useKept<readonly LineFields[]>(`${name}-lines`, initial)
  const { value: lines, change: setLines } = kept
  const settled = useDeferredValue(lines)
  const whole = useMemo(() => wholeLines(settled), [settled])
  const complete = whole.length === lines.length
  const { data: outlook, error } = useQuery(read.outlook(complete ? whole : undefined, batchId))
  const plan = useIdempotentMutation(save, {
    stale: ['batches', 'packing', 'stock'],
    after: (answer) => {
      forgetForm(name)
      kept.forget()
      done(answer)
    },
  })
  if (!patterns) return <PageLoading what="Fetching the patterns" />
  const changeOf =
    (i: number): ChangeLine =>
    (next, byItself) =>
      setLines((before) => before.map((each, at) => (at === i ? next(each) : each)), byItself)
  return (
    <div className="page stack">
      <h1>{title}</h1>
      <KeptForm<Fields>
        name={name}
        beside={kept}
        layout="vertical"
        requiredMark={false}
        onFinish={({ name, dueOn }) => plan.run({ name, dueOn: dueOn.format('YYYY-MM-DD'), lines: wholeLines(lines) })}
        initialValues={fields ?? { dueOn: today.add(14, 'day') }}
        className="sheet pad"
      >
        <div className={styles.fields}>
          <Form.Item label="Name" name="name" rules={rulesOf(newBatch.shape.name)}>
            <Input placeholder="Saturday class" autoFocus />
          </Form.Item>
          <Form.Item label="Due" name="dueOn" rules={rulesOf(newBatch.shape.dueOn)}>
            <DatePicker format="D MMM YYYY" allowClear={false} />
          </Form.Item>
        </div>
        <div className="stack">
          {lines.map((line, i) => (
            <div key={i}>
              <LineForm
                line={line}
                change={changeOf(i)}
                remove={lines.length > 1 ? () => setLines(lines.filter((_, at) => at !== i)) : undefined}
              />
              {complete && outlook?.lines[i] && line.kits !== undefined && (
                <div className={styles.near}>
                  <CouldMake line={outlook.lines[i]} kits={line.kits} items={outlook.items} />
                </div>
              )}
            </div>
          ))}
        </div>
        <div className={styles.foot}>
          <Button onClick={() => setLines([...lines, {}])}>Another line</Button>
          <span className={styles.grow} />
          {!complete && (
            <span className="quiet">Each line needs a pattern, a version, a colourway and a number of kits.</span>
          )}
          <Button type="primary" htmlType="submit" disabled={!complete} loading={plan.busy}>
            Save the plan
          </Button>
        </div>
        <div className={styles.below}>
          <ErrorNotice error={plan.refused ?? (error as ShopError | null)} />
        </div>
      </KeptForm>
      {complete && outlook && outlook.items.length > 0 && (
        <div className="rows">
          <Limits items={outlook.items} />
        </div>
      )}
    </div>
  )
}
