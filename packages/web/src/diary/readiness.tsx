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
import { type StateLook, StateTag } from '../frame/state-tag'

const looks: Readonly<Record<Readiness, { readonly look: StateLook; readonly icon: ReactNode }>> = {
  unplanned: { look: 'draft', icon: <EditOutlined /> },
  'to change': { look: 'short', icon: <ExclamationCircleOutlined /> },
  short: { look: 'short', icon: <ExclamationCircleOutlined /> },
  'to reserve': { look: 'draft', icon: <ShoppingOutlined /> },
  'to pack': { look: 'draft', icon: <InboxOutlined /> },
  packing: { look: 'draft', icon: <InboxOutlined /> },
  ready: { look: 'ready', icon: <CheckOutlined /> },
  over: { look: 'over', icon: <MinusCircleOutlined /> },
}

/** How far something has come, in a word, a mark and a colour. */
export const ReadinessMark = ({ readiness }: { readiness: Readiness }) => (
  <StateTag look={looks[readiness].look}>
    {looks[readiness].icon}
    {readiness}
  </StateTag>
)
