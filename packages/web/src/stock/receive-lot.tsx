import { newLot } from '@tessellum/contract/buying'
import type { StockUnit } from '@tessellum/contract/stock'
import { Checkbox, DatePicker, Form, Input, Modal } from 'antd'
import type { Dayjs } from 'dayjs'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { NumberField } from '../frame/number-field'
import { useToday } from '../settings/use-today'
import { keptIn, useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './receive-lot.module.css'

interface ReceiveLotProps {
  readonly item: { readonly id: number; readonly name: string; readonly unit: StockUnit }
  /** What was bought, in the item's unit. */
  readonly quantity: number
  /** The order it comes of. */
  readonly purchaseId?: number
  readonly close: () => void
}

interface Fields {
  readonly code: string
  readonly day: Dayjs
  readonly amount: number
  readonly restComing: boolean
}

/** A delivery goes on the shelf as a lot of its own. */
export function ReceiveLot({ item, quantity, purchaseId, close }: ReceiveLotProps) {
  const units = useUnits()
  const today = useToday()
  const [form] = Form.useForm<Fields>()
  const name = keptIn(units, purchaseId === undefined ? `lot-of-${item.id}` : `delivery-${purchaseId}`)
  const amount = Form.useWatch('amount', form) ?? units.typed(quantity, item.unit)
  const missing = quantity - units.recorded(amount, item.unit)
  const receive = useIdempotentMutation(
    ({ code, day, amount, restComing = true }: Fields) => {
      const came = {
        code,
        receivedOn: day.format('YYYY-MM-DD'),
        quantity: units.recorded(amount, item.unit),
      }
      return purchaseId === undefined
        ? call('POST /api/items/:id/lots', { params: { id: item.id }, body: came })
        : call('POST /api/purchases/:id/receive', { params: { id: purchaseId }, body: { ...came, restComing } })
    },
    {
      stale: ['stock', 'batches', 'buy-list'],
      said: 'It is on the shelf.',
      after: () => {
        forgetForm(name)
        close()
      },
    },
  )
  return (
    <Modal
      open
      title={`Received: ${item.name}`}
      okText="Put it on the shelf"
      onCancel={close}
      onOk={form.submit}
      confirmLoading={receive.busy}
    >
      <KeptForm<Fields>
        name={name}
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={receive.run}
        initialValues={{ day: today, amount: units.typed(quantity, item.unit), restComing: true }}
      >
        <Form.Item label="Lot, as the label says" name="code" rules={rulesOf(newLot.shape.code)}>
          <Input autoFocus />
        </Form.Item>
        <Form.Item label="Came on" name="day" rules={rulesOf(newLot.shape.receivedOn)}>
          <DatePicker format="D MMMM YYYY" />
        </Form.Item>
        <Form.Item
          label={`How much, ${units.word[item.unit]}`}
          name="amount"
          rules={rulesOf(newLot.shape.quantity, (typed) => units.recorded(Number(typed), item.unit))}
        >
          <NumberField className={styles.figure ?? ''} />
        </Form.Item>
        <Form.Item name="restComing" valuePropName="checked" hidden={purchaseId === undefined || missing <= 0}>
          <Checkbox>The other {units.quantity(Math.max(0, missing), item.unit)} are still to come</Checkbox>
        </Form.Item>
        <ErrorNotice error={receive.refused} />
      </KeptForm>
    </Modal>
  )
}
