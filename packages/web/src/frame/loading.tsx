import { Spin } from 'antd'

export const Loading = ({ what = 'Fetching' }: { what?: string }) => (
  <div className="empty" role="status">
    <Spin /> <span style={{ marginLeft: 10 }}>{what}...</span>
  </div>
)
