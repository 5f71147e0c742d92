import type { ReactNode } from 'react'
import styles from './state-tag.module.css'

/** How a state looks: as it should be, begun, lacking something, over and done with, or neither. */
export type StateLook = 'ready' | 'draft' | 'short' | 'over' | 'plain'

/** In what state something is. It is told in words; its colour only helps. */
export const StateTag = ({ look, children }: { look: StateLook; children: ReactNode }) => (
  <span className={`${styles.state} ${styles[look] ?? ''}`}>{children}</span>
)
