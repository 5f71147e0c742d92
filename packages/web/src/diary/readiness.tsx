import {
  CheckOutlined,
  EditOutlined,
  ExclamationCircleOutlined,
  InboxOutlined,
  MinusCircleOutlined,
  ShoppingOutlined,
} from '@ant-design/icons'
import type { Readiness } from '@tessellum/contract/classes'
import type { ReactNode } from 'react'

const looks: Readonly<Record<Readiness, { readonly tone: string; readonly icon: ReactNode }>> = {
  unplanned: { tone: 'draft', icon: <EditOutlined /> },
  'to change': { tone: 'short', icon: <ExclamationCircleOutlined /> },
  short: { tone: 'short', icon: <ExclamationCircleOutlined /> },
  'to reserve': { tone: 'draft', icon: <ShoppingOutlined /> },
  'to pack': { tone: 'draft', icon: <InboxOutlined /> },
  packing: { tone: 'draft', icon: <InboxOutlined /> },
  ready: { tone: 'ready', icon: <CheckOutlined /> },
  over: { tone: 'cancelled', icon: <MinusCircleOutlined /> },
}

/** How far something has come, in a word, a mark and a colour. */
export const ReadinessMark = ({ readiness }: { readiness: Readiness }) => (
  <span className={`state ${looks[readiness].tone}`}>
    {looks[readiness].icon}
    {readiness}
  </span>
)
