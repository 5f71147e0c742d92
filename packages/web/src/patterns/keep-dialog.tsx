import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type Pattern, type SaveVersion, saveVersion } from '@tessellum/contract/patterns'
import { Form, Input, Modal } from 'antd'
import { memo } from 'react'
import { rulesOf } from '../frame/contract-rules'
import type { OpenDialog } from '../frame/use-dialog'
import { call, ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

interface KeepDialogProps extends OpenDialog {
  readonly pattern: Pattern
  readonly save: () => Promise<number | undefined>
}

/** Names the draft as it is and keeps it. Memoized: faults come and go with the keys that are typed. */
export const KeepDialog = memo(function KeepDialog({ pattern, save, open, close }: KeepDialogProps) {
  const [form] = Form.useForm<{ name: string; note?: string }>()
  const client = useQueryClient()
  // The draft is saved first: what is kept is the revision that it has then.
  const draft = useMutation<number, ShopError>({
    mutationFn: async () => {
      const revision = await save()
      if (revision === undefined)
        throw new ShopError({
          code: 'unsaved',
          message: 'The draft could not be saved first.',
          hint: 'Try again when it has been.',
        })
      return revision
    },
  })
  const keep = useIdempotentMutation(
    (body: SaveVersion) => call('POST /api/patterns/:id/versions', { params: { id: pattern.id }, body }),
    {
      stale: ['patterns'],
      said: ({ version }) => `Version ${version} saved.`,
      after: (answer) => {
        client.setQueryData(read.pattern(pattern.id).queryKey, answer)
        close()
        form.resetFields()
      },
    },
  )
  const keepDraft = ({ name, note }: { name: string; note?: string }) =>
    draft.mutate(undefined, { onSuccess: (revision) => keep.run({ name, note: note ?? '', revision }) })
  const refused = draft.error ?? keep.refused
  return (
    <Modal
      open={open}
      title="Save a version"
      okText="Save version"
      onCancel={close}
      onOk={form.submit}
      confirmLoading={draft.isPending || keep.busy}
      destroyOnHidden
    >
      <Form
        name="keep-version"
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={keepDraft}
        initialValues={{ name: `Edition ${(pattern.version ?? 0) + 1}` }}
      >
        <p className="quiet">
          It is kept as it is now and never changes. It will be version {(pattern.version ?? 0) + 1}.
        </p>
        <Form.Item label="Name" name="name" rules={rulesOf(saveVersion.shape.name)}>
          <Input autoFocus />
        </Form.Item>
        <Form.Item label="What changed" name="note" rules={rulesOf(saveVersion.shape.note)}>
          <Input.TextArea rows={3} />
        </Form.Item>
        {refused && (
          <div role="alert" className="notice trouble">
            {refused.message} {refused.hint}
          </div>
        )}
      </Form>
    </Modal>
  )
})
