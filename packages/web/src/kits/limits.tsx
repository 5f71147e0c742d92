import type { Outlook } from '@tessellum/contract/batches'
import { scaleLinear } from 'd3-scale'
import { Link } from 'react-router'
import { useUnits } from '../settings/use-units'
import styles from './limits.module.css'

/** How far each item goes, against what the batch needs: the line down the middle is "enough". */
export function Limits({ items }: { items: Outlook['items'] }) {
  const units = useUnits()
  const width = 190
  const reach = scaleLinear().domain([0, 2]).range([0, width]).clamp(true)
  return (
    <table className={`figures ${styles.table}`} aria-label="What the batch takes from the shelf">
      <thead>
        <tr className={`quiet ${styles.head}`}>
          <th className={styles.itemHead}>Item</th>
          <th className={styles.figureHead}>Needed</th>
          <th className={styles.figureHead}>Free</th>
          <th className={styles.figureHead}>Promised here</th>
          <th className={styles.figureHead}>Short</th>
          <th className={styles.barHead}>Covers</th>
        </tr>
      </thead>
      <tbody>
        {items.map((item) => {
          const allowed = item.free + item.promisedHere
          const share = item.needed > 0 ? allowed / item.needed : 2
          const short = item.short > 0
          return (
            <tr key={item.itemId} className={styles.row}>
              <td className={styles.item}>
                <span className="hands">
                  <svg width="16" height="16" aria-hidden="true" className={styles.swatch}>
                    <rect x="1" y="1" width="14" height="14" rx="4" fill={item.colour} stroke="#22302b" />
                  </svg>
                  <span>
                    <Link to={`/stock/${item.itemId}`}>{item.name}</Link>
                    {item.heldBy.length > 0 && (
                      <span className={`quiet ${styles.under}`}>
                        also held by{' '}
                        {item.heldBy
                          .map((held) => `${held.name} (${units.quantity(held.quantity, item.unit)})`)
                          .join(', ')}
                      </span>
                    )}
                  </span>
                </span>
              </td>
              <td>{units.quantity(item.needed, item.unit)}</td>
              <td>{units.quantity(item.free, item.unit)}</td>
              <td>{item.promisedHere ? units.quantity(item.promisedHere, item.unit) : ''}</td>
              <td className={short ? 'trouble' : 'quiet'}>
                {short ? (
                  <strong>
                    {units.quantity(item.short, item.unit)}
                    <span className={styles.lot}>from kit {item.shortFromKit} on</span>
                  </strong>
                ) : (
                  'no'
                )}
              </td>
              <td className={styles.bar}>
                <svg
                  className={styles.limit}
                  width={width}
                  height="18"
                  role="img"
                  aria-label={`Enough for ${Math.floor(share * 100)} per cent of what is needed`}
                >
                  <rect x="0" y="5" width={width} height="8" rx="4" fill="#e8e0cd" />
                  <rect x="0" y="5" width={reach(share)} height="8" rx="4" fill={short ? '#9a3f2b' : '#2a5a49'} />
                  <line x1={reach(1)} x2={reach(1)} y1="0" y2="18" stroke="#22302b" strokeWidth="1.5" />
                </svg>
              </td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}
