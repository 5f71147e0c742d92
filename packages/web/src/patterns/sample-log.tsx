import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { type NewSample, newSample, type Samples } from '@tessellum/contract/samples'
import { counted } from '@tessellum/core/measure/counted'
import { sayPercent } from '@tessellum/core/measure/units'
import type { Report } from '@tessellum/core/report/report'
import { minSamples } from '@tessellum/core/thread/sampled'
import { Button, Form, Input, Modal } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { rulesOf } from '../frame/contract-rules'
import { FigureTable } from '../frame/figure-table'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { NumberField } from '../frame/number-field'
import { useMay } from '../people/me'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './sample-log.module.css'

interface SampleLogProps {
  readonly pattern: Pattern
  readonly report: Report
  /** As many as this page has been open. */
  readonly minutes: number
  readonly eager: boolean
}

interface Logged {
  readonly minutes: number
  readonly threadCm: number
  readonly note?: string
}

/** What a sample really took, logged against what was computed; and the samples there are. */
export function SampleLog({ pattern, report, minutes, eager }: SampleLogProps) {
  const units = useUnits()
  const mayLog = useMay('samples.log')
  const [open, setOpen] = useState(false)
  const [form] = Form.useForm<Logged>()
  const name = `sample-${pattern.id}`
  const client = useQueryClient()
  const { data } = useQuery(read.samples(pattern.id))
  const log = useIdempotentMutation(
    (body: NewSample) => call('POST /api/patterns/:id/samples', { params: { id: pattern.id }, body }),
    {
      after: (answer) => {
        client.setQueryData(read.samples(pattern.id).queryKey, answer)
        forgetForm(name)
        setOpen(false)
        form.resetFields()
      },
    },
  )
  const logged = ({ minutes, threadCm, note }: Logged) => {
    const version = pattern.changed ? null : pattern.version
    log.run({ version, size: report.size, minutes, threadMm: threadCm * 10, note: note ?? '' })
  }
  const { refused } = log
  const ofSize = (data?.samples ?? []).filter((each) => each.size === report.size)
  return (
    <div className={styles.samples}>
      <div className="hands">
        <span className="quiet">
          {ofSize.length === 0
            ? 'No sample logged yet'
            : `${counted(ofSize.length, 'sample')} logged, the last ${sayRatio(ofSize[0])}`}
          {data && data.samples.length > 0 && ` ${sayEffect(data.correction)}`}
        </span>
        <span className="spacer" />
        {mayLog && (
          <Button type={eager ? 'primary' : 'default'} onClick={() => setOpen(true)}>
            Log a sample
          </Button>
        )}
      </div>
      <Modal
        open={open}
        title="Log a sample"
        okText="Log it"
        onCancel={() => setOpen(false)}
        onOk={form.submit}
        confirmLoading={log.busy}
        destroyOnHidden
      >
        <KeptForm<Logged>
          name={name}
          form={form}
          layout="vertical"
          requiredMark={false}
          onFinish={logged}
          initialValues={{ minutes: Math.max(1, minutes) }}
        >
          <p className="quiet">
            {report.pattern}
            {report.size ? `, ${report.size}` : ''},{' '}
            {pattern.changed || pattern.version === null ? 'as drafted' : `version ${pattern.version}`}. Planned:{' '}
            {units.thread(report.thread.totalMm)} of thread with ends and take-up.
          </p>
          <Form.Item label="Minutes it took" name="minutes" rules={rulesOf(newSample.shape.minutes)}>
            <NumberField className={styles.figure ?? ''} />
          </Form.Item>
          <Form.Item
            label="Thread really used, cm (what was cut, less what was left)"
            name="threadCm"
            rules={rulesOf(newSample.shape.threadMm, (cm) => Number(cm) * 10)}
          >
            <NumberField className={styles.figure ?? ''} />
          </Form.Item>
          <Form.Item label="Note" name="note" rules={rulesOf(newSample.shape.note)}>
            <Input.TextArea rows={2} />
          </Form.Item>
          {refused && (
            <div role="alert" className="notice trouble">
              {refused.message} {refused.hint}
            </div>
          )}
        </KeptForm>
        {data && <Shown shown={data} />}
        {ofSize.length > 0 && (
          <FigureTable words>
            <thead>
              <tr>
                <th scope="col">Logged</th>
                <th scope="col">By</th>
                <th scope="col">Minutes</th>
                <th scope="col">Thread</th>
                <th scope="col">Against computed</th>
              </tr>
            </thead>
            <tbody>
              {ofSize.slice(0, 6).map((each) => (
                <tr key={each.id}>
                  <td>{dayjs(each.madeAt).format('D MMM')}</td>
                  <td>{each.madeBy}</td>
                  <td>{each.minutes}</td>
                  <td>{units.thread(each.threadMm)}</td>
                  <td>{sayRatio(each)}</td>
                </tr>
              ))}
            </tbody>
          </FigureTable>
        )}
      </Modal>
    </div>
  )
}

/** What all samples of the technique show, and what it does to the plan. */
function Shown({ shown: { technique, thread, minutes, correction } }: { shown: Samples }) {
  if (!thread) return null
  const spread = ({ median, least, most }: NonNullable<Samples['thread']>) =>
    `${sayPercent(median - 1)} in the middle, ${sayPercent(least - 1)} to ${sayPercent(most - 1)}`
  return (
    <p className="quiet figures">
      {counted(thread.count, 'sample')} in {technique}: thread {spread(thread)}
      {minutes && `; time ${spread(minutes)}`}, against what was computed.{' '}
      {correction.count > 0
        ? `Thread plans of this pattern are corrected by ${sayPercent(correction.ratio - 1)}.`
        : `From ${minSamples} on they correct the thread plan.`}
    </p>
  )
}

/** What samples do to the plan: one by itself may be a slip or a tight hand. */
const sayEffect = ({ ratio, count }: { ratio: number; count: number }) =>
  count > 0
    ? `(threads are cut ${sayPercent(ratio - 1)} by ${count} samples)`
    : `(threads are cut by samples once there are ${minSamples})`

const sayRatio = (each: { threadMm: number; computedMm: number } | undefined) =>
  each ? `${sayPercent(each.threadMm / each.computedMm - 1)} thread` : ''
