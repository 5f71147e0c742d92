import { Popconfirm } from 'antd'
import type { ReactElement } from 'react'

interface AskFirstProps {
  /** "Call off this batch?" */
  readonly title: string
  /** What follows, and that it cannot be undone. */
  readonly follows: string
  /** What the button that does it says. */
  readonly ok: string
  readonly run: () => void
  /** The button that begins it; it does nothing by itself. */
  readonly children: ReactElement
}

/** What cannot be undone is asked about once, with what follows. */
export const AskFirst = ({ title, follows, ok, run, children }: AskFirstProps) => (
  <Popconfirm
    title={title}
    description={<div style={{ maxWidth: 300 }}>{follows}</div>}
    okText={ok}
    cancelText="Leave it"
    onConfirm={run}
    placement="bottomRight"
  >
    {children}
  </Popconfirm>
)
