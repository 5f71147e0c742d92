import type { ReactNode } from 'react'
import styles from './page-head.module.css'

interface PageHeadProps {
  readonly title: ReactNode
  /** What stands before the title: a swatch. */
  readonly before?: ReactNode
  /** In smaller words beneath the title. */
  readonly under?: ReactNode
  /** What belongs to the title: a state, a number. */
  readonly beside?: ReactNode
  /** Links, switches and buttons, at the right. */
  readonly children?: ReactNode
  readonly className?: string | undefined
}

/** What a page is, and what can be done on it as a whole. */
export const PageHead = ({ title, before, under, beside, children, className = '' }: PageHeadProps) => (
  <div className={`${styles.head} ${className}`}>
    {before}
    {under === undefined ? (
      <h1>{title}</h1>
    ) : (
      <div>
        <h1>{title}</h1>
        {under}
      </div>
    )}
    {beside}
    <span className={styles.room} />
    {children}
  </div>
)

/** What narrows or orders the list beneath it. */
export const Toolbar = ({ children }: { children: ReactNode }) => <div className={styles.head}>{children}</div>
