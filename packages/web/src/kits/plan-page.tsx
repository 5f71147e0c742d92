import { DeleteOutlined } from '@ant-design/icons'
import { useMutation, useQuery } from '@tanstack/react-query'
import {
  type BatchLine,
  batch as batchAnswer,
  batchLine,
  mostKits,
  outlook as outlookAnswer,
} from '@tessellum/contract/batches'
import { Button, DatePicker, Form, Input, InputNumber, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { useReckoned } from '../patterns/use-reckoned'
import { ask, newKey, type ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { CouldMake } from './could-make'
import { Limits } from './limits'

type LineFields = { readonly [Field in keyof BatchLine]?: BatchLine[Field] | undefined }

/** Planning a batch: what it takes and what the shelf allows, as it is being typed. */
export function PlanPage() {
  usePageTitle('Plan a batch')
  const navigate = useNavigate()
  const [params] = useSearchParams()
  const { data: patterns } = useQuery(read.patterns)
  const [form] = Form.useForm<{ name: string; dueOn: Dayjs }>()
  const first = Number(params.get('pattern')) || undefined
  const [lines, setLines] = useState<readonly LineFields[]>([{ patternId: first }])
  const key = useRef(newKey())
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
  const plan = useMutation({
    mutationFn: ({ name, dueOn }: { name: string; dueOn: Dayjs }) =>
      ask('POST', '/batches', batchAnswer, {
        body: { name, dueOn: dueOn.format('YYYY-MM-DD'), lines },
        key: key.current,
      }),
    onSuccess: ({ id }) => void navigate(`/kits/${id}`),
    onError: () => {
      key.current = newKey()
    },
  })
  const refused = plan.error as ShopError | null
  if (!patterns) return <Loading what="Fetching the patterns" />
  const change = (i: number, line: LineFields) => setLines(lines.map((each, at) => (at === i ? line : each)))
  return (
    <div className="page stack">
      <h1>Plan a batch</h1>
      <Form
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={plan.mutate}
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
                change={(next) => change(i, next)}
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
          <Button type="primary" htmlType="submit" disabled={!complete} loading={plan.isPending}>
            Save the plan
          </Button>
        </div>
        {(refused ?? (error as ShopError | null)) && (
          <div role="alert" className="notice trouble" style={{ marginTop: 14 }}>
            {(refused ?? (error as ShopError)).message} {(refused ?? (error as ShopError)).hint}
          </div>
        )}
      </Form>
      {complete && outlook && outlook.items.length > 0 && (
        <div className="rows">
          <Limits items={outlook.items} />
        </div>
      )}
    </div>
  )
}

const noChoices = {}

function LineForm({
  line,
  change,
  remove,
}: {
  line: LineFields
  change: (line: LineFields) => void
  remove: (() => void) | undefined
}) {
  const { data: patterns } = useQuery(read.patterns)
  const { data: pattern } = useQuery({ ...read.pattern(line.patternId ?? 0), enabled: line.patternId !== undefined })
  const { data: version } = useQuery({
    ...read.version(line.patternId ?? 0, line.version ?? 0),
    enabled: line.patternId !== undefined && line.version !== undefined,
  })
  const { data: colourways } = useQuery({
    ...read.colourways(line.patternId ?? 0),
    enabled: line.patternId !== undefined,
  })
  const { now } = useReckoned(version?.source, noChoices)
  const sizes = version && now ? now.sizes : []

  // The newest version, its usual size and the first colourway are what is meant most often.
  useEffect(() => {
    if (!pattern || line.patternId !== pattern.id) return
    if (line.version === undefined && pattern.version) change({ ...line, version: pattern.version })
    else if (line.colourwayId === undefined && colourways?.[0]) change({ ...line, colourwayId: colourways[0].id })
    else if (line.size === undefined && version && now && version.number === line.version)
      change({ ...line, size: now.size })
  }, [pattern, version, now, colourways, line, change])

  const wrong =
    line.kits === undefined ? undefined : batchLine.shape.kits.safeParse(line.kits).error?.issues[0]?.message
  return (
    <fieldset className="line-form" style={{ border: 0, padding: 0, margin: 0 }}>
      <legend className="visually-hidden">A line of the batch</legend>
      <Labelled label="Pattern">
        <Select
          aria-label="Pattern"
          showSearch={{ optionFilterProp: 'label' }}
          placeholder="Choose"
          style={{ width: '100%' }}
          value={line.patternId ?? null}
          onChange={(patternId) => change({ patternId: patternId ?? undefined, kits: line.kits })}
          options={(patterns ?? [])
            .filter((each) => each.version)
            .map((each) => ({ value: each.id, label: each.title }))}
        />
      </Labelled>
      <Labelled label="Version">
        <Select
          aria-label="Version"
          style={{ width: '100%' }}
          value={line.version ?? null}
          onChange={(next) => change({ ...line, version: next ?? undefined })}
          options={(pattern?.versions ?? []).map((each) => ({
            value: each.number,
            label: String(each.number),
            title: each.name,
          }))}
        />
      </Labelled>
      <Labelled label="Size">
        {sizes.length > 0 || line.patternId === undefined ? (
          <Select
            aria-label="Size"
            style={{ width: '100%' }}
            value={line.size ?? null}
            onChange={(size) => change({ ...line, size: size ?? undefined })}
            options={sizes.map((size) => ({ value: size, label: size }))}
          />
        ) : (
          <span style={{ lineHeight: '36px' }}>one size</span>
        )}
      </Labelled>
      <Labelled label="Colourway">
        <Select
          aria-label="Colourway"
          style={{ width: '100%' }}
          value={line.colourwayId ?? null}
          onChange={(colourwayId) => change({ ...line, colourwayId: colourwayId ?? undefined })}
          options={(colourways ?? []).map((each) => ({ value: each.id, label: each.name }))}
        />
      </Labelled>
      <Labelled label="Kits">
        <InputNumber
          aria-label="Kits"
          style={{ width: '100%' }}
          value={line.kits ?? null}
          {...(wrong ? { status: 'error' as const } : {})}
          onChange={(kits) => change({ ...line, kits: kits ?? undefined })}
        />
      </Labelled>
      <span style={{ paddingTop: 23 }}>
        {remove && <Button aria-label="Take this line away" icon={<DeleteOutlined />} onClick={remove} />}
      </span>
      {wrong && (
        <span className="trouble" role="alert" style={{ gridColumn: '1 / -1' }}>
          {wrong} {line.kits !== undefined && line.kits > mostKits ? 'Share them between several batches.' : ''}
        </span>
      )}
    </fieldset>
  )
}

// The control carries the same words as its name, so the label is for the eye only.
const Labelled = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <div>
    <div className="quiet" aria-hidden="true">
      {label}
    </div>
    {children}
  </div>
)
