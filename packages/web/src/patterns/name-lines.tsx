import { Button, Form, Input, Modal } from 'antd'
import type { OpenDialog } from '../frame/use-dialog'

/** A line is marked with a name, or lines are made a part of that name. */
export type Named = 'name' | 'part'

interface NameLinesProps extends OpenDialog {
  readonly what: Named
  readonly named: (name: string) => void
}

export function NameLines({ what, named, open, close }: NameLinesProps) {
  return (
    <Modal
      title={what === 'name' ? 'Give it a name' : 'Make it a part'}
      open={open}
      footer={null}
      onCancel={close}
      destroyOnHidden
    >
      <Form layout="vertical" requiredMark={false} onFinish={({ name }: { name: string }) => named(name)}>
        <Form.Item
          label="Name"
          name="name"
          rules={[
            { required: true, message: 'Enter a name.' },
            {
              pattern: /^[a-z][a-z_]*\d*$/,
              message: 'Small letters, with figures behind them if you like: rim, rim2.',
            },
          ]}
        >
          <Input autoFocus />
        </Form.Item>
        <Button type="primary" htmlType="submit">
          {what === 'name' ? 'Give the name' : 'Make the part'}
        </Button>
      </Form>
    </Modal>
  )
}
