import { useQuery } from '@tanstack/react-query'
import { costSettings } from '@tessellum/contract/diary'
import { Button, Form } from 'antd'
import type { z } from 'zod'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { NumberField } from '../frame/number-field'
import { PageLoading } from '../frame/page-loading'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { SettingsFrame } from './settings-frame'
import { useMoney } from './use-shop-settings'

type Costs = z.infer<typeof costSettings>

/** In whole money and per cent, as people say them. */
const spoken = (costs: Costs) => ({
  ...costs,
  packaging: costs.packaging / 100,
  printing: costs.printing / 100,
  wage: costs.wage / 100,
  teaching: costs.teaching / 100,
  roundTo: costs.roundTo / 100,
  waste: costs.waste * 100,
  margin: costs.margin * 100,
})
const kept = (fields: Costs): Costs => ({
  ...fields,
  packaging: Math.round(fields.packaging * 100),
  printing: Math.round(fields.printing * 100),
  wage: Math.round(fields.wage * 100),
  teaching: Math.round(fields.teaching * 100),
  roundTo: Math.max(1, Math.round(fields.roundTo * 100)),
  waste: fields.waste / 100,
  margin: fields.margin / 100,
})

const fields = [
  { name: 'packaging', label: 'Bags, card and string of a kit', unit: 'money', step: 0.05 },
  { name: 'printing', label: 'A printed pattern', unit: 'money', step: 0.05 },
  { name: 'packingMinutes', label: 'Packing a kit', unit: 'minutes', step: 1 },
  { name: 'wage', label: 'An hour of packing', unit: 'money', step: 0.5 },
  { name: 'waste', label: 'Beads spilt and culled', unit: '%', step: 1 },
  { name: 'margin', label: 'Margin', unit: '% of the price', step: 1 },
  { name: 'teaching', label: 'An hour of teaching', unit: 'money', step: 1 },
  { name: 'roundTo', label: 'Prices are multiples of', unit: 'money', step: 0.05 },
] as const

const formName = 'settings-costs'

/** How the shop works out what a kit and a seat cost. */
export function CostsPage() {
  const { sign } = useMoney()
  const mayKeep = useMay('costs.keep')
  const { data, error } = useQuery(read.costs)
  const save = useIdempotentMutation((body: Costs) => call('PUT /api/costs', { body }), {
    stale: ['costs', 'classes', 'batches'],
    said: 'Cost settings saved.',
    after: () => forgetForm(formName),
  })
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Fetching the costs" />
  return (
    <SettingsFrame title="Costs">
      <KeptForm<Costs>
        name={formName}
        className="sheet pad"
        layout="vertical"
        requiredMark={false}
        disabled={!mayKeep}
        initialValues={spoken(data)}
        onFinish={(typed: Costs) => save.run(kept(typed))}
      >
        <div className="fields">
          {fields.map(({ name, label, unit, step }) => (
            <Form.Item
              key={name}
              label={label}
              name={name}
              rules={rulesOf(costSettings.shape[name], (typed) => kept({ ...data, [name]: typed })[name])}
            >
              <NumberField min={0} step={step} suffix={unit === 'money' ? sign : unit} />
            </Form.Item>
          ))}
        </div>
        <p className="quiet">
          A kit costs its beads, what is wasted of them, its bags, its pattern and the packing; the price keeps the
          margin, rounded up.
        </p>
        <ErrorNotice error={save.refused} />
        {mayKeep && (
          <Button type="primary" htmlType="submit" loading={save.busy}>
            Save
          </Button>
        )}
      </KeptForm>
    </SettingsFrame>
  )
}
