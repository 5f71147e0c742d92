import type { BuyLine } from '@tessellum/contract/buying'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { Link } from 'react-router'
import { useMoney } from '../settings/use-shop-settings'
import { useToday } from '../settings/use-today'
import { useUnits } from '../settings/use-units'
import { NamedItem } from '../stock/named-item'
import styles from './buy-page.module.css'
import { SupplyStrip } from './supply-strip'

interface BuyRowProps {
  readonly line: BuyLine
  readonly ordering: boolean
  /** Undefined for who may not. */
  readonly order: (() => void) | undefined
  readonly receive: (() => void) | undefined
}

/** An item to buy: what it is, how far it goes, in which packs, and by when for whom. */
export function BuyRow({ line, ordering, order, receive }: BuyRowProps) {
  const units = useUnits()
  const money = useMoney()
  const { item, name, short, low, unit, packs, cost, amount, orderBy, batches } = line
  return (
    <tr>
      <th scope="row">
        <NamedItem item={item} />
      </th>
      <td className={styles.supply}>
        <SupplyStrip line={line} />
      </td>
      <td className={short > 0 ? 'trouble' : 'quiet'}>
        {short > 0 ? (
          <strong className={styles.unbroken}>{units.quantity(short, unit)}</strong>
        ) : (
          <span className={styles.unbroken}>runs low by {units.quantity(low, unit)}</span>
        )}
      </td>
      <td>
        {packs.map((pack) => (
          <span key={pack.amount} className={styles.pack}>
            {pack.count} x {units.quantity(pack.amount, unit)}
          </span>
        ))}
        {packs.length === 0 && <span className="trouble">no pack is known</span>}
      </td>
      <td>{packs.length > 0 ? money.say(cost) : ''}</td>
      <td>
        {orderBy !== null && <OrderBy day={orderBy} />}
        {batches.map((batch) => (
          <span key={batch.id} className={styles.under}>
            for <Link to={`/kits/${batch.id}`}>{batch.name}</Link>
            <span className="quiet">, {dayjs(batch.dueOn).format('D MMM')}</span>
          </span>
        ))}
      </td>
      {(order || receive) && (
        <td className={styles.unbroken}>
          {order && amount > 0 && (
            <Button size="small" type="primary" loading={ordering} onClick={order} aria-label={`Ordered: ${name}`}>
              Ordered
            </Button>
          )}{' '}
          {receive && (
            <Button size="small" onClick={receive} aria-label={`Received: ${name}`}>
              Received
            </Button>
          )}
        </td>
      )}
    </tr>
  )
}

function OrderBy({ day }: { day: string }) {
  const left = dayjs(day).diff(useToday(), 'day')
  const said = dayjs(day).format('ddd, D MMM')
  if (left < 0) return <strong className="trouble">{said}: too late for it</strong>
  const when = left === 0 ? 'today' : left === 1 ? 'tomorrow' : `in ${left} days`
  return (
    <span className={left <= 2 ? 'trouble' : ''}>
      <strong className={styles.unbroken}>{said}</strong>, {when}
    </span>
  )
}
