import { Skeleton, Spin } from 'antd'

/** Something is being worked out. */
export const Loading = ({ what = 'Fetching' }: { what?: string }) => (
  <div className="empty" role="status">
    <Spin /> <span style={{ marginLeft: 10 }}>{what}...</span>
  </div>
)

/** A page that is being fetched: about what it will look like, so that nothing jumps when it is there. */
export const PageLoading = ({ what = 'Fetching the page' }: { what?: string }) => (
  <div className="page" role="status">
    <span className="visually-hidden">{what}...</span>
    <Skeleton active title={{ width: 220 }} paragraph={{ rows: 9, width: '100%' }} />
  </div>
)
