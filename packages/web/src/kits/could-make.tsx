import type { LineOutlook, Outlook } from '@tessellum/contract/batches'
import { useUnits } from '../settings/use-units'
import styles from './could-make.module.css'

/** What the shelf allows for one line, in a sentence; and what one more pack would. */
export function CouldMake({ line, kits, items }: { line: LineOutlook; kits: number; items: Outlook['items'] }) {
  const units = useUnits()
  if (line.troubles.length > 0) return <span className="trouble">{line.troubles.join(' ')}</span>
  const itemOf = (id: number) => items.find((item) => item.itemId === id)
  const by = line.limitedBy.map((id) => itemOf(id)?.name ?? '').filter(Boolean)
  const more = line.oneMore.flatMap(({ itemId, amount, kits: allowed }) => {
    const item = itemOf(itemId)
    return item && allowed > line.couldMake
      ? [`${units.quantity(amount, item.unit)} more of ${item.name} would allow ${allowed}`]
      : []
  })
  return (
    <>
      <span className={line.together < kits ? 'trouble' : 'quiet'}>
        the shelf allows <strong className="figures">{line.couldMake}</strong>
        {line.ready > 0 && (
          <>
            , <strong className="figures">{line.ready}</strong> of them packed already
          </>
        )}
        {line.together < Math.min(line.couldMake, kits) && (
          <>
            , <strong className="figures">{line.together}</strong> beside the other lines
          </>
        )}
        {by.length > 0 && `, limited by ${by.slice(0, 2).join(' and ')}`}
        {more.length > 0 && `; ${more.slice(0, 2).join(', ')}`}
      </span>
      {line.substitutes.map(({ kits: some, roles }, i) => (
        <span key={i} className={`quiet ${styles.under}`}>
          <strong className="figures">{some}</strong> of them with{' '}
          {roles.map(({ role, name }) => `${name} for ${role}`).join(' and ')}, as the colourway allows
        </span>
      ))}
    </>
  )
}
