import type { ReactNode } from 'react'
import styles from './facts.module.css'

/** The figures one comes to a page for, large. */
export const Facts = ({ children }: { children: ReactNode }) => <dl className={`sheet ${styles.facts}`}>{children}</dl>

export const Fact = ({ label, children }: { label: string; children: ReactNode }) => (
  <div className={styles.fact}>
    <dt>{label}</dt>
    <dd>{children}</dd>
  </div>
)
