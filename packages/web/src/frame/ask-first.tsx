import { Modal } from 'antd'
import { cloneElement, type ReactElement } from 'react'

interface AskFirstProps {
  /** "Call off this batch?" */
  readonly title: string
  /** What follows, and that it cannot be undone. */
  readonly follows: string
  /** What the button that does it says. */
  readonly ok: string
  readonly run: () => void
  /** The button that begins it; it does nothing by itself. */
  readonly children: ReactElement<{ onClick?: () => void }>
}

/** What cannot be undone is asked about once, with what follows: in the middle of the page, where no row moves from under the hand. */
export function AskFirst({ title, follows, ok, run, children }: AskFirstProps) {
  const onClick = () => void Modal.confirm({ title, content: follows, okText: ok, cancelText: 'Leave it', onOk: run })
  return cloneElement(children, { onClick })
}
