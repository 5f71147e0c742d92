import { useQuery } from '@tanstack/react-query'
import type { FetchList } from '@tessellum/contract/diary'
import { counted } from '@tessellum/core/measure/counted'
import dayjs from 'dayjs'
import { Link } from 'react-router'
import { read } from '../shop/queries'
import { Quantity } from '../stock/quantity-cell'
import { Swatch } from '../stock/swatch'
import styles from './bench.module.css'

/** What the bags of the next days are filled from, place by place: fetched in one walk. */
export function FetchPanel() {
  const { data } = useQuery(read.fetchList)
  if (!data || data.places.length === 0) return null
  return (
    <section aria-label="To fetch from the shelf">
      <h2 className={styles.heading}>To fetch from the shelf</h2>
      <div className={`sheet ${styles.walk}`}>
        <p className="quiet">
          For what is packed by {dayjs(data.until).format('D MMMM')}:{' '}
          {data.batches.map(({ id, name }, i) => (
            <span key={id}>
              {i > 0 && ', '}
              <Link to={`/kits/${id}/pack`}>{name}</Link>
            </span>
          ))}
          .
        </p>
        {data.places.map(({ place, tubes }) => (
          <section key={place} aria-label={place || 'No place given'}>
            <h3>{place || 'No place given'}</h3>
            {tubes.map((tube) => (
              <Tube key={tube.lotId} tube={tube} />
            ))}
          </section>
        ))}
      </div>
    </section>
  )
}

const Tube = ({
  tube: { item, lot, unit, quantity, bags },
}: {
  tube: FetchList['places'][number]['tubes'][number]
}) => (
  <div className={styles.tube}>
    <Swatch item={item} />
    <span>
      <Link to={`/stock/${item.id}`}>{item.colourName}</Link>
      {item.finish && <span className="quiet">, {item.finish}</span>}
      <br />
      <span className="quiet">
        {item.kind} {item.size}, lot {lot}
      </span>
    </span>
    <span className={`figures ${styles.quantity}`}>
      <Quantity quantity={quantity} unit={unit} />
      <br />
      <span className="quiet">{counted(bags, 'bag')}</span>
    </span>
  </div>
)
