import type { ReactNode } from 'react'
import styles from './item-cell.module.css'

interface ItemCellProps {
  readonly swatch: ReactNode
  readonly children: ReactNode
  /** In smaller words beneath it. */
  readonly under?: ReactNode
}

/** What a row of figures is of: its swatch, its name, and what tells it from others. */
export const ItemCell = ({ swatch, children, under }: ItemCellProps) => (
  <span className={styles.item}>
    {swatch}
    <span>
      {children}
      {under && <span className={`quiet ${styles.under}`}>{under}</span>}
    </span>
  </span>
)
