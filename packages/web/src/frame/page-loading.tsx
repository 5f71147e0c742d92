import { Skeleton } from 'antd'

/** A page that is being fetched: about what it will look like, so that nothing jumps when it is there. */
export const PageLoading = ({ what = 'Fetching the page' }: { what?: string }) => (
  <div className="page" role="status">
    <span className="visually-hidden">{what}...</span>
    <Skeleton active title={{ width: 220 }} paragraph={{ rows: 9, width: '100%' }} />
  </div>
)
