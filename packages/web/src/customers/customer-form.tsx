import { type Customer, type CustomerCard, type SaveCustomer, saveCustomer } from '@tessellum/contract/customers'
import type { Worn } from '@tessellum/core/desk/wearer'
import { Checkbox, Form, Input, Modal } from 'antd'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { MeasureField } from '../settings/measure-field'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

interface CustomerFormProps {
  readonly customer?: Customer
  readonly done: (card: CustomerCard) => void
  readonly close: () => void
}

/** Adds a customer, or changes one. */
export function CustomerForm({ customer, done, close }: CustomerFormProps) {
  const [form] = Form.useForm<SaveCustomer>()
  const name = `customer-${customer?.id ?? 'new'}`
  const save = useIdempotentMutation(
    (body: SaveCustomer) =>
      customer
        ? call('PUT /api/customers/:id', { params: { id: customer.id }, body })
        : call('POST /api/customers', { body }),
    {
      stale: ['customers', 'classes'],
      said: ({ name: who }) => `${who} saved.`,
      after: (card) => {
        forgetForm(name)
        done(card)
      },
    },
  )
  const { fingers } = useUnits()
  const measure = (label: string, worn: Worn) => (
    <Form.Item label={label} name={`${worn}Mm`}>
      <MeasureField worn={worn} />
    </Form.Item>
  )
  return (
    <Modal
      open
      title={customer ? `Change ${customer.name}` : 'Add a customer'}
      okText={customer ? 'Save' : 'Add the customer'}
      onCancel={close}
      onOk={form.submit}
      confirmLoading={save.busy}
      width={640}
    >
      <KeptForm<SaveCustomer>
        name={name}
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={(given) => save.run({ ...given, leftHanded: given.leftHanded ?? false })}
        initialValues={customer ?? { contact: '', allergies: '', note: '' }}
      >
        <div className="fields">
          <Form.Item label="Name" name="name" rules={rulesOf(saveCustomer.shape.name)}>
            <Input autoFocus maxLength={80} />
          </Form.Item>
          <Form.Item label="How to reach them" name="contact">
            <Input maxLength={200} placeholder="a telephone number or an address" />
          </Form.Item>
        </div>
        <div className="fields">
          {measure('Wrist', 'wrist')}
          {measure('Neck', 'neck')}
          {measure(fingers === 'ISO' ? 'Finger, round it' : 'Finger', 'finger')}
        </div>
        <Form.Item name="leftHanded" valuePropName="checked">
          <Checkbox>Left-handed</Checkbox>
        </Form.Item>
        <Form.Item
          label="Allergies, as they told"
          name="allergies"
          extra="For example nickel. Only what they want you to keep."
        >
          <Input maxLength={500} />
        </Form.Item>
        <Form.Item label="Note" name="note">
          <Input.TextArea rows={2} maxLength={1000} />
        </Form.Item>
        <ErrorNotice error={save.refused} />
      </KeptForm>
    </Modal>
  )
}
