import { type NewPurchase, newPurchase } from '@tessellum/contract/buying'
import type { ItemStory } from '@tessellum/contract/stock'
import { counted } from '@tessellum/core/measure/counted'
import { DatePicker, Form, Input, Modal } from 'antd'
import type { Dayjs } from 'dayjs'
import { asMoney, rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { NumberField } from '../frame/number-field'
import { useMoney } from '../settings/use-shop-settings'
import { useToday } from '../settings/use-today'
import { keptIn, useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './order-item.module.css'

interface Fields {
  readonly supplier: string
  /** Of each pack, in their order. */
  readonly packs?: readonly (number | null)[]
  /** Where no pack is known. */
  readonly amount?: number
  readonly cost?: number
  readonly expected: Dayjs
}

/** Ordered though nothing is short: so many packs of an item, counted as coming from then on. */
export function OrderItem({ item, close }: { item: ItemStory; close: () => void }) {
  const units = useUnits()
  const money = useMoney()
  const today = useToday()
  const [form] = Form.useForm<Fields>()
  const counts = Form.useWatch('packs', form) ?? []
  const name = keptIn(units, `order-of-${item.id}`)
  const { packs } = item
  const sum = (of: 'amount' | 'price') => packs.reduce((all, pack, i) => all + pack[of] * (counts[i] ?? 0), 0)
  const order = useIdempotentMutation((body: NewPurchase) => call('POST /api/purchases', { body }), {
    stale: ['stock', 'buy-list', 'diary'],
    said: 'Ordered: it counts as coming.',
    after: () => {
      forgetForm(name)
      close()
    },
  })
  const send = ({ supplier, amount = 0, cost = 0, expected }: Fields) =>
    order.run({
      itemId: item.id,
      supplier,
      expectedOn: expected.format('YYYY-MM-DD'),
      ...(packs.length > 0
        ? { amount: sum('amount'), cost: sum('price') }
        : { amount: units.recorded(amount, item.unit), cost: Math.round(cost * 100) }),
    })
  return (
    <Modal
      open
      title={`Order ${item.colourName}`}
      okText="Ordered"
      okButtonProps={{ disabled: packs.length > 0 && sum('amount') === 0 }}
      onCancel={close}
      onOk={form.submit}
      confirmLoading={order.busy}
    >
      <KeptForm<Fields>
        name={name}
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={send}
        initialValues={{
          supplier: item.maker,
          packs: packs.map((_, i) => (i === 0 ? 1 : 0)),
          expected: today.add(Math.max(7, ...packs.map(({ leadDays }) => leadDays)), 'day'),
        }}
      >
        <Form.Item label="From" name="supplier" rules={rulesOf(newPurchase.shape.supplier)}>
          <Input maxLength={80} />
        </Form.Item>
        {packs.map(({ amount, price, leadDays }, i) => (
          <Form.Item
            key={amount}
            label={`Packs of ${units.quantity(amount, item.unit)}, ${money.say(price)}, in ${counted(leadDays, 'day')}`}
            name={['packs', i]}
          >
            <NumberField min={0} max={10_000} precision={0} className={styles.figure ?? ''} />
          </Form.Item>
        ))}
        {packs.length === 0 && (
          <>
            <Form.Item
              label={`How much, ${units.word[item.unit]}`}
              name="amount"
              rules={rulesOf(newPurchase.shape.amount, (typed) => units.recorded(Number(typed), item.unit))}
            >
              <NumberField className={styles.figure ?? ''} />
            </Form.Item>
            <Form.Item
              label={`Cost of all of it, ${money.sign}`}
              name="cost"
              rules={rulesOf(newPurchase.shape.cost, asMoney)}
            >
              <NumberField step={0.5} precision={2} className={styles.figure ?? ''} />
            </Form.Item>
          </>
        )}
        <Form.Item label="Expected" name="expected" rules={rulesOf(newPurchase.shape.expectedOn)}>
          <DatePicker format="D MMMM YYYY" allowClear={false} />
        </Form.Item>
        {packs.length > 0 && sum('amount') > 0 && (
          <p className="figures" role="status">
            <strong>{units.quantity(sum('amount'), item.unit)}</strong> for {money.say(sum('price'))}
          </p>
        )}
        <ErrorNotice error={order.refused} />
      </KeptForm>
    </Modal>
  )
}
