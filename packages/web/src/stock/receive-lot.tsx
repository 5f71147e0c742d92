import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { StockUnit } from '@tessellum/contract/stock'
import { perSpoken, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { App, Checkbox, DatePicker, Form, Input, InputNumber, Modal } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useRef } from 'react'
import { z } from 'zod'
import { ask, newKey, ShopError } from '../shop/api'

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
  const client = useQueryClient()
  const { message } = App.useApp()
  const [form] = Form.useForm<Fields>()
  const key = useRef(newKey())
  const amount = Form.useWatch('amount', form) ?? quantity / perSpoken[item.unit]
  const missing = quantity - Math.round(amount * perSpoken[item.unit])
  const receive = useMutation({
    mutationFn: ({ code, day, amount, restComing }: Fields) =>
      ask(
        'POST',
        purchaseId === undefined ? `/items/${item.id}/lots` : `/purchases/${purchaseId}/receive`,
        z.object({ lotId: z.number() }),
        {
          body: {
            code,
            receivedOn: day.format('YYYY-MM-DD'),
            quantity: Math.round(amount * perSpoken[item.unit]),
            ...(purchaseId === undefined ? {} : { restComing }),
          },
          key: key.current,
        },
      ),
    onSuccess: () => {
      for (const subject of ['stock', 'batches', 'buy-list']) void client.invalidateQueries({ queryKey: [subject] })
      void message.success('It is on the shelf.')
      close()
    },
  })
  return (
    <Modal
      open
      title={`Received: ${item.name}`}
      okText="Put it on the shelf"
      onCancel={close}
      onOk={form.submit}
      confirmLoading={receive.isPending}
    >
      <Form
        name="receive-lot"
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={receive.mutate}
        onValuesChange={() => {
          // Another delivery is another thing to do.
          key.current = newKey()
        }}
        initialValues={{ day: dayjs(), amount: quantity / perSpoken[item.unit], restComing: true }}
      >
        <Form.Item
          label="Lot, as the label says"
          name="code"
          rules={[
            { required: true, whitespace: true, message: 'Give the lot a code.' },
            { max: 60, message: 'At most 60 letters.' },
          ]}
        >
          <Input autoFocus />
        </Form.Item>
        <Form.Item label="Came on" name="day" rules={[{ required: true, message: 'Give the day it came.' }]}>
          <DatePicker format="D MMMM YYYY" />
        </Form.Item>
        <Form.Item
          label={`How much, ${spokenUnit[item.unit]}`}
          name="amount"
          rules={[{ required: true, message: 'Give a quantity.' }]}
        >
          <InputNumber min={0.001} max={1_000_000} style={{ width: 160 }} />
        </Form.Item>
        <Form.Item name="restComing" valuePropName="checked" hidden={purchaseId === undefined || missing <= 0}>
          <Checkbox>The other {sayQuantity(Math.max(0, missing), item.unit)} are still to come</Checkbox>
        </Form.Item>
        {receive.error instanceof ShopError && (
          <div role="alert" className="notice trouble">
            {receive.error.message} {receive.error.hint}
          </div>
        )}
      </Form>
    </Modal>
  )
}
