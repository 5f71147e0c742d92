import type { BuyLine } from '@tessellum/contract/buying'
import { useUnits } from '../settings/use-units'
import { supplyBar } from './supply'
import styles from './supply-strip.module.css'

const width = 240

/** What there is of an item and what is wanted of it, drawn to one scale and told beneath. */
export function SupplyStrip({ line }: { line: BuyLine }) {
  const units = useUnits()
  const say = (quantity: number) => units.quantity(quantity, line.unit)
  const { parts, planned, kept } = supplyBar(line)
  const told = [
    `${say(Math.max(0, line.free))} free`,
    line.coming > 0 && `${say(line.coming)} coming`,
    line.planned > 0 && `drafts take ${say(line.planned)}`,
    line.reorderBelow > 0 && `kept above ${say(line.reorderBelow)}`,
  ]
  return (
    <>
      <svg className={styles.strip} viewBox={`0 0 ${width} 16`} aria-hidden="true">
        <rect className={styles.ground} x="0" y="4" width={width} height="8" rx="4" />
        {parts.map(({ of, from, to }) => (
          <rect key={of} className={styles[of]} x={width * from} y="4" width={width * (to - from)} height="8" />
        ))}
        {planned !== undefined && <path className={styles.planned} d={`M${width * planned} 0v16`} />}
        {kept !== undefined && <path className={styles.kept} d={`M${width * kept} 0v16`} />}
      </svg>
      <span className={`quiet ${styles.told}`}>{told.filter(Boolean).join(', ')}</span>
    </>
  )
}

/** What the marks of a strip mean. */
export const SupplyKey = () => (
  <p className={`quiet ${styles.keys}`}>
    <svg className={styles.key} viewBox="0 0 20 8" aria-hidden="true">
      <rect className={styles.free} width="20" height="8" />
    </svg>{' '}
    free{' '}
    <svg className={styles.key} viewBox="0 0 20 8" aria-hidden="true">
      <rect className={styles.coming} width="20" height="8" />
    </svg>{' '}
    coming{' '}
    <svg className={styles.key} viewBox="0 0 20 8" aria-hidden="true">
      <rect className={styles.bought} x="0.5" y="0.5" width="19" height="7" />
    </svg>{' '}
    to buy{' '}
    <svg className={styles.mark} viewBox="0 0 4 16" aria-hidden="true">
      <path className={styles.planned} d="M2 0v16" />
    </svg>{' '}
    what the drafts take{' '}
    <svg className={styles.mark} viewBox="0 0 4 16" aria-hidden="true">
      <path className={styles.kept} d="M2 0v16" />
    </svg>{' '}
    and the reorder level
  </p>
)
