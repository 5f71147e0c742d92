import { CheckOutlined, EditOutlined, StopOutlined } from '@ant-design/icons'
import type { BatchState as State } from '@tessellum/contract/batches'

const words = { draft: 'planned', reserved: 'reserved', cancelled: 'called off' } as const
const icons = { draft: <EditOutlined />, reserved: <CheckOutlined />, cancelled: <StopOutlined /> } as const

export const BatchState = ({ state }: { state: State }) => (
  <span className={`state ${state}`}>
    {icons[state]} {words[state]}
  </span>
)
