import { BulbOutlined, CloseCircleFilled, WarningFilled } from '@ant-design/icons'
import type { Fault } from '@tessellum/core/notation/fault'
import type { Draft } from './draft'
import styles from './faults.module.css'
import { useAtRest } from './use-draft'

const marks = { error: <CloseCircleFilled />, warning: <WarningFilled />, note: <BulbOutlined /> }
/** What must be fixed comes first; within a rank the lines stay in order. */
const ranks = { error: 0, warning: 1, note: 2 }
const names = { error: 'Error', warning: 'Warning', note: 'Note' }

interface FaultsProps {
  readonly draft: Draft
  readonly faults: readonly Fault[]
  readonly goTo: (line: number, column: number) => void
}

/** Everything there is to say about the text, line by line; choosing one goes there. A line half typed is marked where it stands, and listed once nobody types. */
export function Faults({ draft, faults: found, goTo }: FaultsProps) {
  const faults = useAtRest(draft, found)
  if (faults.length === 0) return null
  const ordered = [...faults].sort((a, b) => ranks[a.severity] - ranks[b.severity])
  return (
    <ul className={styles.faults} aria-label="Errors and notes">
      {ordered.map((fault, i) => (
        <li key={i} className={styles[fault.severity]}>
          <button type="button" onClick={() => goTo(fault.line, fault.column)}>
            <span className={styles.mark} role="img" aria-label={names[fault.severity]}>
              {marks[fault.severity]}
            </span>
            <span className="quiet">line {fault.line}</span>
            <span>
              {fault.message} {fault.mend && <span className="quiet">{fault.mend}</span>}
            </span>
          </button>
        </li>
      ))}
    </ul>
  )
}
