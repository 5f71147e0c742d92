import { useQuery } from '@tanstack/react-query'
import { batch as batchAnswer, batchLine, outlook as outlookAnswer } from '@tessellum/contract/batches'
import { Button, DatePicker, Form, Input } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useDeferredValue, useMemo } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { forgetForm, KeptForm, useKept } from '../frame/kept-form'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Refused } from '../frame/refused'
import { ask, type ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { useDoing } from '../shop/use-doing'
import { CouldMake } from './could-make'
import { Limits } from './limits'
import { type LineFields, LineForm } from './line-form'

/** Planning a batch: what it takes and what the shelf allows, as it is being typed. */
export function PlanPage() {
  usePageTitle('Plan a batch')
  const navigate = useNavigate()
  const [params] = useSearchParams()
  const { data: patterns } = useQuery(read.patterns)
  const first = Number(params.get('pattern')) || undefined
  const name = `plan-${first ?? 'any'}`
  const kept = useKept<readonly LineFields[]>(`${name}-lines`, [{ patternId: first }])
  const { value: lines, change: setLines } = kept
  const settled = useDeferredValue(lines)
  const whole = useMemo(
    () => settled.map((line) => batchLine.safeParse(line)).flatMap((read) => (read.success ? [read.data] : [])),
    [settled],
  )
  const complete = whole.length === lines.length
  const { data: outlook, error } = useQuery({
    queryKey: ['batches', 'outlook', whole],
    queryFn: () => ask('POST', '/batches/outlook', outlookAnswer, { body: { lines: whole } }),
    enabled: whole.length > 0 && complete,
    placeholderData: (before) => before,
  })
  const plan = useDoing(
    (body: { name: string; dueOn: string; lines: readonly LineFields[] }, key) =>
      ask('POST', '/batches', batchAnswer, { body, key }),
    {
      stale: ['batches'],
      after: ({ id }) => {
        forgetForm(name)
        kept.forget()
        void navigate(`/kits/${id}`)
      },
    },
  )
  if (!patterns) return <Loading what="Fetching the patterns" />
  const change = (i: number, line: LineFields, byItself?: boolean) =>
    setLines(
      lines.map((each, at) => (at === i ? line : each)),
      byItself,
    )
  return (
    <div className="page stack">
      <h1>Plan a batch</h1>
      <KeptForm<{ name: string; dueOn: Dayjs }>
        name={name}
        beside={kept}
        layout="vertical"
        requiredMark={false}
        onFinish={({ name, dueOn }) => plan.run({ name, dueOn: dueOn.format('YYYY-MM-DD'), lines })}
        initialValues={{ dueOn: dayjs().add(14, 'day') }}
        className="sheet pad"
      >
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 200px', gap: 14 }}>
          <Form.Item
            label="Name"
            name="name"
            rules={[
              { required: true, whitespace: true, message: 'Name the batch.' },
              { max: 80, message: 'At most 80 letters.' },
            ]}
          >
            <Input placeholder="Saturday class" autoFocus />
          </Form.Item>
          <Form.Item label="Due" name="dueOn" rules={[{ required: true, message: 'Give the day it is due.' }]}>
            <DatePicker style={{ width: '100%' }} format="D MMM YYYY" allowClear={false} />
          </Form.Item>
        </div>
        <div className="stack">
          {lines.map((line, i) => (
            <div key={i}>
              <LineForm
                line={line}
                change={(next, byItself) => change(i, next, byItself)}
                remove={lines.length > 1 ? () => setLines(lines.filter((_, at) => at !== i)) : undefined}
              />
              {complete && outlook?.lines[i] && line.kits !== undefined && (
                <div style={{ marginTop: 4 }}>
                  <CouldMake line={outlook.lines[i]} kits={line.kits} items={outlook.items} />
                </div>
              )}
            </div>
          ))}
        </div>
        <div style={{ display: 'flex', gap: 10, marginTop: 16, alignItems: 'center' }}>
          <Button onClick={() => setLines([...lines, {}])}>Another line</Button>
          <span style={{ flex: 1 }} />
          {!complete && (
            <span className="quiet">Each line needs a pattern, a version, a colourway and a number of kits.</span>
          )}
          <Button type="primary" htmlType="submit" disabled={!complete} loading={plan.busy}>
            Save the plan
          </Button>
        </div>
        <Refused error={plan.refused ?? (error as ShopError | null)} />
      </KeptForm>
      {complete && outlook && outlook.items.length > 0 && (
        <div className="rows">
          <Limits items={outlook.items} />
        </div>
      )}
    </div>
  )
}
