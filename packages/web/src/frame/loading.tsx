import { Spin } from 'antd'
import styles from './loading.module.css'

/** Something is being worked out. */
export const Loading = ({ what = 'Fetching' }: { what?: string }) => (
  <div className="empty" role="status">
    <Spin /> <span className={styles.what}>{what}...</span>
  </div>
)
