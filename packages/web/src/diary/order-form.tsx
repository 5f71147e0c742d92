import { useQueryClient } from '@tanstack/react-query'
import type { Customer } from '@tessellum/contract/customers'
import { type Order, type SizedOrder, type SizeOrder, saveOrder } from '@tessellum/contract/orders'
import { wristEaseOf } from '@tessellum/contract/usual-settings'
import type { WristEase } from '@tessellum/core/desk/wearer'
import { Button, DatePicker, Form, Input, Modal, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { CustomerField, type Who } from '../customers/customer-field'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm, useKept } from '../frame/kept-form'
import { NumberField } from '../frame/number-field'
import { isWhole, type LineFields, LineForm } from '../kits/line-form'
import { MeasureField } from '../settings/measure-field'
import { useMoney, useShopSettings } from '../settings/use-shop-settings'
import { useToday } from '../settings/use-today'
import { useUnits } from '../settings/use-units'
import { call, ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './order-form.module.css'

/** What an order changes. */
export const stale = ['diary', 'bench', 'batches', 'stock', 'buy-list']

interface Fields {
  readonly customer: Who
  readonly worn?: 'wrist' | 'neck' | 'finger'
  readonly measureMm?: number | null
  readonly day: Dayjs
  readonly price: number
  readonly paid: number
  readonly promised: string
}

const lineOf = ({ patternId, version, size, colourwayId, kits }: Order): LineFields => ({
  patternId,
  version,
  size,
  colourwayId,
  kits,
})

/** Takes an order, or changes one. */
export function OrderForm({ order, close }: { order?: Order; close: () => void }) {
  const units = useUnits()
  const money = useMoney()
  const today = useToday()
  const settings = useShopSettings()
  const client = useQueryClient()
  const [form] = Form.useForm<Fields>()
  const name = `order-${order?.id ?? 'new'}`
  const kept = useKept<LineFields>(`${name}-line`, order ? lineOf(order) : { kits: 1 })
  const { value: line, change: setLine } = kept
  const [sized, setSized] = useState<SizedOrder>()
  const [known, setKnown] = useState<Customer>()
  const [ease, setEase] = useState<WristEase>('usual')
  const worn = Form.useWatch('worn', form)
  const measureMm = Form.useWatch('measureMm', form) ?? null
  const size = useIdempotentMutation((body: SizeOrder) => call('POST /api/orders/size', { body }), {
    after: (answer) => {
      setSized(answer)
      const [best] = answer.ways
      if (best) setLine((before) => ({ ...before, size: best.size }))
    },
  })
  /** Whoever is on record has told their measures, and what they do not bear. */
  const take = (customer: Customer) => {
    setKnown(customer)
    const { wristMm, neckMm, fingerMm } = customer
    const measures = { wrist: wristMm, neck: neckMm, finger: fingerMm }
    const [of] = worn ? [worn] : (['wrist', 'neck', 'finger'] as const).filter((each) => measures[each] !== null)
    const mm = of && measures[of]
    if (of && mm && !measureMm) form.setFieldsValue({ worn: of, measureMm: mm })
  }
  const save = useIdempotentMutation(
    ({ customer, day, price, paid, promised }: Fields) => {
      const read = saveOrder.safeParse({
        customer: customer.name,
        customerId: customer.id,
        worn: worn && measureMm ? worn : null,
        measureMm: worn ? measureMm : null,
        ...line,
        size: line.size ?? '',
        wantedOn: day.format('YYYY-MM-DD'),
        price: Math.round((price ?? 0) * 100),
        paid: Math.round((paid ?? 0) * 100),
        promised: promised ?? '',
      })
      if (!read.success)
        throw new ShopError({ code: 'bad-input', message: read.error.issues[0]?.message ?? 'Something is missing.' })
      return order
        ? call('PUT /api/orders/:id', { params: { id: order.id }, body: read.data })
        : call('POST /api/orders', { body: read.data })
    },
    {
      stale,
      said: order ? 'Order changed.' : 'Order taken.',
      after: (orders) => {
        client.setQueryData(read.orders.queryKey, orders)
        forgetForm(name)
        kept.forget()
        close()
      },
    },
  )
  return (
    <Modal
      open
      title={order ? `Change the order for ${order.customer}` : 'Take an order'}
      width={860}
      okText={order ? 'Save' : 'Take the order'}
      onCancel={close}
      onOk={form.submit}
      confirmLoading={save.busy}
      okButtonProps={{ disabled: line.patternId !== undefined && !isWhole(line) }}
      className={styles.dialog ?? ''}
    >
      <KeptForm<Fields>
        name={name}
        beside={kept}
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={save.run}
        initialValues={
          order
            ? {
                customer: { name: order.customer, id: order.customerId },
                worn: order.worn ?? undefined,
                measureMm: order.measureMm,
                day: dayjs(order.wantedOn),
                price: order.price / 100,
                paid: order.paid / 100,
                promised: order.promised,
              }
            : { day: today.add(28, 'day'), price: 0, paid: 0 }
        }
      >
        <div className="fields">
          <Form.Item
            label="For"
            name="customer"
            rules={[
              {
                validator: async (_, who?: Who) => {
                  if (!who?.name.trim()) throw new Error('Enter the customer’s name.')
                },
              },
            ]}
          >
            <CustomerField autoFocus onKnown={take} />
          </Form.Item>
          <Form.Item label="Wanted by" name="day" rules={rulesOf(saveOrder.shape.wantedOn)}>
            <DatePicker format="ddd, D MMM YYYY" allowClear={false} />
          </Form.Item>
          <Form.Item label={`Price, ${money.sign}`} name="price">
            <NumberField min={0} step={0.5} precision={2} />
          </Form.Item>
          <Form.Item label={`Paid so far, ${money.sign}`} name="paid">
            <NumberField min={0} step={0.5} precision={2} />
          </Form.Item>
        </div>
        {known && (known.allergies || known.leftHanded) && (
          <p className="notice" role="status">
            {known.allergies && <strong>Allergies: {known.allergies}. </strong>}
            {known.leftHanded && 'Left-handed: the written pattern can be for the left hand.'}
          </p>
        )}
        <LineForm line={line} change={setLine} remove={undefined} />
        <div className={`hands ${styles.measure}`}>
          <Form.Item name="worn" noStyle>
            <Select
              aria-label="Worn on"
              placeholder="Worn on"
              allowClear
              className={styles.wornOn ?? ''}
              options={['wrist', 'neck', 'finger'].map((value) => ({ value, label: value }))}
            />
          </Form.Item>
          <Form.Item name="measureMm" noStyle>
            <MeasureField worn={worn ?? 'wrist'} width={140} name="Measure" />
          </Form.Item>
          {worn === 'wrist' && (
            <Select
              aria-label="How it sits"
              className={styles.ease ?? ''}
              value={ease}
              onChange={setEase}
              options={Object.entries(wristEaseOf(settings)).map(([value, mm]) => ({
                value: value as WristEase,
                label: `${value}: ${mm} mm more than the wrist`,
              }))}
            />
          )}
          <Button
            onClick={() => {
              const { patternId, version } = line
              if (patternId && version && worn && measureMm) size.run({ patternId, version, worn, measureMm, ease })
            }}
            loading={size.busy}
            disabled={!worn || !measureMm || !line.patternId || !line.version}
          >
            Size it
          </Button>
          {line.size && <span>made {line.size}</span>}
        </div>
        <ErrorNotice error={size.refused} />
        {sized && (
          <ul className="figures" aria-label="Ways to size it">
            {sized.ways.map((way) => (
              <li key={way.size}>
                <Button
                  size="small"
                  type={way.size === line.size ? 'primary' : 'default'}
                  onClick={() => setLine({ ...line, size: way.size })}
                >
                  {way.size || 'its one size'}
                </Button>{' '}
                {way.made ? 'made to measure' : 'one of its sizes'}
                {way.finishedMm !== null &&
                  `: ${units.length(way.finishedMm)} long, ${units.length(sized.wantedMm)} wanted`}
                {way.trouble && <span className="trouble">: {way.trouble}</span>}
              </li>
            ))}
          </ul>
        )}
        <Form.Item label="What was promised" name="promised" className={styles.below ?? ''}>
          <Input.TextArea rows={2} maxLength={1000} />
        </Form.Item>
        <ErrorNotice error={save.refused} />
      </KeptForm>
    </Modal>
  )
}
