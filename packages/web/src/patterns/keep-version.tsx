import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type Pattern, pattern as patternAnswer } from '@tessellum/contract/patterns'
import { App, Button, Form, Input, Modal } from 'antd'
import { useState } from 'react'
import { ask, ShopError } from '../shop/api'
import { useKeyFor } from '../shop/key-for'

interface KeepVersionProps {
  readonly pattern: Pattern
  readonly save: () => Promise<number | undefined>
  readonly errors: number
}

/** Names the draft as it is and keeps it: batches and written patterns are made from kept versions. */
export function KeepVersion({ pattern, save, errors }: KeepVersionProps) {
  const [open, setOpen] = useState(false)
  const [form] = Form.useForm<{ name: string; note?: string }>()
  const client = useQueryClient()
  const { message } = App.useApp()
  const { keyFor, done } = useKeyFor()
  const keep = useMutation({
    mutationFn: async ({ name, note }: { name: string; note?: string }) => {
      const revision = await save()
      if (revision === undefined)
        throw new ShopError({
          code: 'unsaved',
          message: 'The draft could not be saved first.',
          hint: 'Try again when it has been.',
        })
      const body = { name, note: note ?? '', revision }
      return ask('POST', `/patterns/${pattern.id}/versions`, patternAnswer, { body, key: keyFor(body) })
    },
    onSuccess: (answer) => {
      done()
      client.setQueryData(['patterns', pattern.id], answer)
      void client.invalidateQueries({ queryKey: ['patterns'] })
      setOpen(false)
      form.resetFields()
      void message.success(`Version ${answer.version} is kept.`)
    },
  })
  const refused = keep.error as ShopError | null
  return (
    <>
      <Button
        type="primary"
        onClick={() => setOpen(true)}
        disabled={errors > 0}
        title={errors > 0 ? 'Mend the faults first' : undefined}
      >
        Save a version
      </Button>
      <Modal
        open={open}
        title="Save a version"
        okText="Save version"
        onCancel={() => setOpen(false)}
        onOk={form.submit}
        confirmLoading={keep.isPending}
        destroyOnHidden
      >
        <Form
          name="keep-version"
          form={form}
          layout="vertical"
          requiredMark={false}
          onFinish={keep.mutate}
          initialValues={{ name: `Edition ${(pattern.version ?? 0) + 1}` }}
        >
          <p className="quiet">
            It is kept as it is now and never changes. It will be version {(pattern.version ?? 0) + 1}.
          </p>
          <Form.Item
            label="Name"
            name="name"
            rules={[
              { required: true, whitespace: true, message: 'Name the version.' },
              { max: 80, message: 'At most 80 letters.' },
            ]}
          >
            <Input autoFocus />
          </Form.Item>
          <Form.Item label="What changed" name="note" rules={[{ max: 2000, message: 'At most 2,000 letters.' }]}>
            <Input.TextArea rows={3} />
          </Form.Item>
          {refused && (
            <div role="alert" className="notice trouble">
              {refused.message} {refused.hint}
            </div>
          )}
        </Form>
      </Modal>
    </>
  )
}
