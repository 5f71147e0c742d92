import type { ReactNode } from 'react'
import styles from './findings.module.css'

export type Tone = 'good' | 'plain' | 'trouble'

const marks: Readonly<Record<Tone, string>> = { good: '✓', plain: '·', trouble: '!' }

interface FindingsProps {
  readonly label?: string
  /** However many there are, all are seen. */
  readonly whole?: boolean
  readonly children: ReactNode
}

/** What has been found out, a sentence each. */
export const Findings = ({ label, whole = false, children }: FindingsProps) => (
  <ul className={`${styles.findings} ${whole ? styles.whole : ''}`} aria-label={label}>
    {children}
  </ul>
)

export const Finding = ({ tone, children }: { tone: Tone; children: ReactNode }) => (
  <li className={styles[tone]}>
    <span className={styles.mark} aria-hidden="true">
      {marks[tone]}
    </span>
    <span>{children}</span>
  </li>
)

/** A remark on all of them. */
export const FindingsRemark = ({ children }: { children: ReactNode }) => (
  <li className={`${styles.remark} quiet`}>{children}</li>
)
