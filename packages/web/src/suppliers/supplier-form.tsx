import { type SaveSupplier, type Supplier, type SupplierCard, saveSupplier } from '@tessellum/contract/suppliers'
import { Form, Input, Modal } from 'antd'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { NumberField } from '../frame/number-field'
import { useMoney } from '../settings/use-shop-settings'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

interface SupplierFormProps {
  readonly supplier?: Supplier
  readonly done: (card: SupplierCard) => void
  readonly close: () => void
}

/** Adds a supplier, or changes one. */
export function SupplierForm({ supplier, done, close }: SupplierFormProps) {
  const money = useMoney()
  const [form] = Form.useForm<SaveSupplier>()
  const name = `supplier-${supplier?.id ?? 'new'}`
  const save = useIdempotentMutation(
    (body: SaveSupplier) =>
      supplier
        ? call('PUT /api/suppliers/:id', { params: { id: supplier.id }, body })
        : call('POST /api/suppliers', { body }),
    {
      stale: ['suppliers'],
      said: ({ name: who }) => `${who} saved.`,
      after: (card) => {
        forgetForm(name)
        done(card)
      },
    },
  )
  return (
    <Modal
      open
      title={supplier ? `Change ${supplier.name}` : 'Add a supplier'}
      okText={supplier ? 'Save' : 'Add the supplier'}
      onCancel={close}
      onOk={form.submit}
      confirmLoading={save.busy}
      width={600}
    >
      <KeptForm<SaveSupplier>
        name={name}
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={({ minOrder, ...given }) => save.run({ ...given, minOrder: Math.round((minOrder ?? 0) * 100) })}
        initialValues={supplier ? { ...supplier, minOrder: supplier.minOrder / 100 } : { contact: '', note: '' }}
      >
        <Form.Item label="Name, as their items have it" name="name" rules={rulesOf(saveSupplier.shape.name)}>
          <Input autoFocus maxLength={80} />
        </Form.Item>
        <Form.Item label="How to reach them" name="contact">
          <Input maxLength={200} />
        </Form.Item>
        <div className="fields">
          <Form.Item label="Usually takes" name="leadDays">
            <NumberField min={0} max={730} precision={0} suffix="days" />
          </Form.Item>
          <Form.Item label={`Minimum order, ${money.sign}`} name="minOrder">
            <NumberField min={0} step={0.5} precision={2} />
          </Form.Item>
        </div>
        <Form.Item label="Note" name="note">
          <Input.TextArea rows={2} maxLength={1000} />
        </Form.Item>
        <ErrorNotice error={save.refused} />
      </KeptForm>
    </Modal>
  )
}
