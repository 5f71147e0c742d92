import { handOver, type Order } from '@tessellum/contract/orders'
import { Button, Form, Modal } from 'antd'
import { useState } from 'react'
import { rulesOf } from '../frame/contract-rules'
import { NumberField } from '../frame/number-field'
import styles from './hand-over.module.css'

/** Asks how many of an order's kits the customer takes along, and says what follows. */
export function HandOver({ order, run }: { order: Order; run: (kits: number) => void }) {
  const [open, setOpen] = useState(false)
  const [form] = Form.useForm<{ kits: number }>()
  const left = order.kits - order.handed
  return (
    <>
      <Button size="small" type="primary" aria-label={`Hand over to ${order.customer}`} onClick={() => setOpen(true)}>
        Hand over
      </Button>
      <Modal
        open={open}
        title={`Hand over to ${order.customer}?`}
        okText="Mark as handed over"
        cancelText="Leave it"
        destroyOnHidden
        onCancel={() => setOpen(false)}
        onOk={form.submit}
      >
        <Form<{ kits: number }>
          form={form}
          layout="vertical"
          requiredMark={false}
          initialValues={{ kits: left }}
          onFinish={({ kits }) => {
            setOpen(false)
            run(kits)
          }}
        >
          {left > 1 ? (
            <Form.Item label="Kits" name="kits" rules={rulesOf(handOver.shape.kits)}>
              <NumberField
                min={1}
                max={left}
                precision={0}
                suffix={`of ${left}`}
                className={styles.figure ?? ''}
                autoFocus
              />
            </Form.Item>
          ) : (
            <Form.Item name="kits" hidden>
              <NumberField />
            </Form.Item>
          )}
        </Form>
        <p>
          {left > 1
            ? 'They leave the shelf as sold. What is left stays kept for the order, which is closed with its last kit.'
            : 'The kit leaves the shelf as sold, and the order is closed.'}{' '}
          {order.price === 0 && 'The order has no price: give it one first if it is paid for. '}
          For a day it can be undone.
        </p>
      </Modal>
    </>
  )
}
