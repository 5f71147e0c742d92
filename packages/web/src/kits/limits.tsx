import type { Outlook } from '@tessellum/contract/batches'
import { scaleLinear } from 'd3-scale'
import { FigureTable } from '../frame/figure-table'
import { useUnits } from '../settings/use-units'
import { NamedItem } from '../stock/named-item'
import styles from './limits.module.css'

/** How far each item goes, against what the batch needs: the line down the middle is "enough". */
export function Limits({ items }: { items: Outlook['items'] }) {
  const units = useUnits()
  const width = 190
  const reach = scaleLinear().domain([0, 2]).range([0, width]).clamp(true)
  return (
    <FigureTable aria-label="What the batch takes from the shelf">
      <thead>
        <tr>
          <th scope="col">Item</th>
          <th scope="col">Needed</th>
          <th scope="col">Free</th>
          <th scope="col">Promised here</th>
          <th scope="col">Short</th>
          <th scope="col" className={styles.bar}>
            Covers
          </th>
        </tr>
      </thead>
      <tbody>
        {items.map((item) => {
          const allowed = item.free + item.promisedHere
          const share = item.needed > 0 ? allowed / item.needed : 2
          const short = item.short > 0
          return (
            <tr key={item.itemId}>
              <th scope="row">
                <NamedItem item={item.item}>
                  {item.heldBy.length > 0 && (
                    <>
                      <br />
                      also held by{' '}
                      {item.heldBy
                        .map((held) => `${held.name} (${units.quantity(held.quantity, item.unit)})`)
                        .join(', ')}
                    </>
                  )}
                </NamedItem>
              </th>
              <td className={styles.figure}>{units.quantity(item.needed, item.unit)}</td>
              <td className={styles.figure}>{units.quantity(item.free, item.unit)}</td>
              <td className={styles.figure}>{item.promisedHere ? units.quantity(item.promisedHere, item.unit) : ''}</td>
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
    </FigureTable>
  )
}
