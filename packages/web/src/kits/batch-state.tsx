import { CheckOutlined, EditOutlined, GiftOutlined, InboxOutlined, LockOutlined, StopOutlined } from '@ant-design/icons'
import type { BatchState as State } from '@tessellum/contract/batches'
import { type StateLook, StateTag } from '../frame/state-tag'

const words = {
  draft: 'planned',
  reserved: 'reserved',
  packing: 'being packed',
  packed: 'packed',
  closed: 'closed',
  cancelled: 'called off',
} as const
const looks: Readonly<Record<State, StateLook>> = {
  draft: 'draft',
  reserved: 'ready',
  packing: 'plain',
  packed: 'plain',
  closed: 'plain',
  cancelled: 'over',
}
const icons = {
  draft: <EditOutlined />,
  reserved: <CheckOutlined />,
  packing: <InboxOutlined />,
  packed: <GiftOutlined />,
  closed: <LockOutlined />,
  cancelled: <StopOutlined />,
} as const

export const BatchState = ({ state }: { state: State }) => (
  <StateTag look={looks[state]}>
    {icons[state]} {words[state]}
  </StateTag>
)
