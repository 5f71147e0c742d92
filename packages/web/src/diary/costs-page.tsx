import { useQuery } from '@tanstack/react-query'
import type { costSettings } from '@tessellum/contract/diary'
import { Button, Form, InputNumber } from 'antd'
import { Link } from 'react-router'
import type { z } from 'zod'
import { ErrorNotice } from '../frame/error-notice'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

type Costs = z.infer<typeof costSettings>

/** In whole money and per cent, as people say them. */
const spoken = (costs: Costs) => ({
  ...costs,
  packaging: costs.packaging / 100,
  printing: costs.printing / 100,
  wage: costs.wage / 100,
  teaching: costs.teaching / 100,
  waste: costs.waste * 100,
  margin: costs.margin * 100,
})
const kept = (fields: Costs): Costs => ({
  ...fields,
  packaging: Math.round(fields.packaging * 100),
  printing: Math.round(fields.printing * 100),
  wage: Math.round(fields.wage * 100),
  teaching: Math.round(fields.teaching * 100),
  waste: fields.waste / 100,
  margin: fields.margin / 100,
})

const fields = [
  { name: 'packaging', label: 'Bags, card and string of a kit, £', step: 0.05 },
  { name: 'printing', label: 'A printed pattern, £', step: 0.05 },
  { name: 'packingMinutes', label: 'Minutes to pack a kit', step: 1 },
  { name: 'wage', label: 'An hour of packing, £', step: 0.5 },
  { name: 'waste', label: 'Beads spilt and culled, %', step: 1 },
  { name: 'margin', label: 'Margin, % of the price', step: 1 },
  { name: 'teaching', label: 'An hour of teaching, £', step: 1 },
] as const

/** How the shop works out what a kit and a seat cost. */
export function CostsPage() {
  usePageTitle('Costs')
  const mayKeep = useMay('costs.keep')
  const { data, error } = useQuery(read.costs)
  const save = useIdempotentMutation((body: Costs) => call('PUT /api/costs', { body }), {
    stale: ['costs', 'classes', 'batches'],
    said: 'Cost settings saved.',
  })
  if (error && !data) return <Trouble error={error} />
  if (!data) return <Loading what="Fetching the costs" />
  return (
    <div className="page stack">
      <div className="page-head">
        <h1>Costs</h1>
        <span className="spacer" />
        <Link to="/diary">The diary</Link>
      </div>
      <Form
        name="costs-page"
        className="sheet pad"
        layout="vertical"
        requiredMark={false}
        disabled={!mayKeep}
        initialValues={spoken(data)}
        onFinish={(typed: Costs) => save.run(kept(typed))}
      >
        <div className="fields">
          {fields.map(({ name, label, step }) => (
            <Form.Item key={name} label={label} name={name} rules={[{ required: true, message: 'Give a figure.' }]}>
              <InputNumber min={0} step={step} style={{ width: '100%' }} />
            </Form.Item>
          ))}
        </div>
        <p className="quiet">
          A kit costs its beads, what is wasted of them, its bags, its pattern and the packing; the price keeps the
          margin, in whole tens of pence.
        </p>
        <ErrorNotice error={save.refused} />
        {mayKeep && (
          <Button type="primary" htmlType="submit" loading={save.busy}>
            Keep
          </Button>
        )}
      </Form>
    </div>
  )
}
