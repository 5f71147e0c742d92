import dayjs from 'dayjs'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import styles from './row-link.module.css'

interface RowLinkProps {
  readonly to: string
  /** Its columns, where they are not day, words, figure, state and arrow. */
  readonly className?: string | undefined
  readonly children: ReactNode
}

/** A row of a list that opens what it tells. */
export const RowLink = ({ to, className = '', children }: RowLinkProps) => (
  <Link className={`${styles.row} ${className}`} to={to}>
    {children}
  </Link>
)

interface RowDayProps {
  /** YYYY-MM-DD, or a moment. */
  readonly on: string
  readonly weekday?: boolean
  readonly children?: ReactNode
}

/** The day a row is found by. */
export const RowDay = ({ on, weekday = false, children }: RowDayProps) => (
  <span>
    <span className={`${styles.day} figures`}>{dayjs(on).format('D')}</span>{' '}
    <span className="quiet">{dayjs(on).format(weekday ? 'MMM ddd' : 'MMM')}</span>
    {children}
  </span>
)
