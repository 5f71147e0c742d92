import { type DescribePattern, type PatternSummary, renamePattern, seasons } from '@tessellum/contract/patterns'
import { Form, Input, Modal, Select } from 'antd'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

interface DialogProps {
  readonly pattern: PatternSummary
  readonly close: () => void
}

const stale = ['library', 'patterns', 'editions']

export function RenameDialog({ pattern: { id, title }, close }: DialogProps) {
  const [form] = Form.useForm<{ title: string }>()
  const save = useIdempotentMutation(
    (body: { title: string }) => call('PUT /api/patterns/:id/title', { params: { id }, body }),
    { stale, after: close },
  )
  return (
    <Modal
      open
      title={`Rename ${title}`}
      okText="Rename"
      onCancel={close}
      onOk={form.submit}
      confirmLoading={save.busy}
    >
      <Form form={form} layout="vertical" requiredMark={false} initialValues={{ title }} onFinish={save.run}>
        <Form.Item
          label="Its name"
          name="title"
          extra="The first line of its text is changed. Versions that were kept keep their name."
          rules={rulesOf(renamePattern.shape.title)}
        >
          <Input autoFocus maxLength={80} />
        </Form.Item>
        <ErrorNotice error={save.refused} />
      </Form>
    </Modal>
  )
}

export function DescribeDialog({ pattern: { id, title, tags, season }, close }: DialogProps) {
  const [form] = Form.useForm<DescribePattern>()
  const save = useIdempotentMutation(
    (body: DescribePattern) => call('PUT /api/patterns/:id/description', { params: { id }, body }),
    { stale, after: close },
  )
  return (
    <Modal open title={title} okText="Save" onCancel={close} onOk={form.submit} confirmLoading={save.busy}>
      <Form<DescribePattern>
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{ tags, season }}
        onFinish={save.run}
      >
        <Form.Item label="Tags" name="tags" extra="What it is looked for by: Enter ends each.">
          <Select mode="tags" tokenSeparators={[',']} maxCount={20} options={[]} open={false} suffixIcon={null} />
        </Form.Item>
        <Form.Item label="Season" name="season">
          <Select options={seasons.map((value) => ({ value, label: value || 'any' }))} />
        </Form.Item>
        <ErrorNotice error={save.refused} />
      </Form>
    </Modal>
  )
}
