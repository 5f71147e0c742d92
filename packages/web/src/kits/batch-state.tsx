import { CheckOutlined, EditOutlined, GiftOutlined, InboxOutlined, LockOutlined, StopOutlined } from '@ant-design/icons'
import type { BatchState as State } from '@tessellum/contract/batches'

const words = {
  draft: 'planned',
  reserved: 'reserved',
  packing: 'being packed',
  packed: 'packed',
  closed: 'closed',
  cancelled: 'called off',
} as const
const icons = {
  draft: <EditOutlined />,
  reserved: <CheckOutlined />,
  packing: <InboxOutlined />,
  packed: <GiftOutlined />,
  closed: <LockOutlined />,
  cancelled: <StopOutlined />,
} as const

export const BatchState = ({ state }: { state: State }) => (
  <span className={`state ${state === 'packing' ? 'filling' : state}`}>
    {icons[state]} {words[state]}
  </span>
)
