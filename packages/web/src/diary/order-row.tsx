import type { Order } from '@tessellum/contract/orders'
import { Button } from 'antd'
import { Link } from 'react-router'
import { AskFirst } from '../frame/ask-first'
import { StateTag } from '../frame/state-tag'
import { DrawnPlate } from '../patterns/drawn-plate'
import { useMoney } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'
import { HandOver } from './hand-over'
import { waitsFor } from './order-list'
import styles from './orders.module.css'
import { ReadinessMark } from './readiness'

interface OrderRowProps {
  readonly order: Order
  readonly today: string
  readonly mayKeep: boolean
  readonly mayKnow: boolean
  readonly run: (what: 'kits' | 'cancel' | 'reopen') => void
  readonly handOver: (kits: number) => void
  readonly change: () => void
}

/** An order in the list: for whom, what, and what it waits for. */
export function OrderRow({ order, today, mayKeep, mayKnow, run, handOver, change }: OrderRowProps) {
  const { customer, customerId, kits, handed, pattern, size, colourway, state, drawing, batchId } = order
  const isOpen = state === 'taken'
  return (
    <div className={styles.row}>
      <DrawnPlate title={pattern} drawing={drawing} />
      <span>
        <strong>
          {customerId !== null && mayKnow ? <Link to={`/customers/${customerId}`}>{customer}</Link> : customer}
        </strong>
        , {kits > 1 && `${kits} x `}
        {pattern}
        {size && `, ${size}`}, in {colourway}
        <br />
        <Told order={order} />
      </span>
      <span>
        {isOpen ? (
          <>
            <ReadinessMark readiness={order.readiness} />
            <Waiting order={order} today={today} />
          </>
        ) : (
          <StateTag look="over">{state === 'done' ? 'handed over' : 'called off'}</StateTag>
        )}
        {isOpen && handed > 0 && (
          <span className={`quiet figures ${styles.under}`}>
            {handed} of {kits} handed over
          </span>
        )}
      </span>
      <span className={styles.acts}>
        {batchId !== null && <Link to={`/kits/${batchId}`}>Its batch</Link>}
        {mayKeep && isOpen && <Acts order={order} run={run} handOver={handOver} change={change} />}
        {mayKeep && order.undoable && (
          <Button
            size="small"
            onClick={() => run('reopen')}
            aria-label={
              isOpen ? `Take back what was last handed over to ${customer}` : `Open the order for ${customer} again`
            }
          >
            {isOpen ? 'Take back' : 'Open again'}
          </Button>
        )}
      </span>
    </div>
  )
}

function Waiting({ order, today }: { order: Order; today: string }) {
  const { said, late } = waitsFor(order, today)
  return <span className={`${late ? 'trouble' : 'quiet'} ${styles.under}`}>{said}</span>
}

/** Its measure, what it costs and what was promised. */
function Told({ order: { worn, measureMm, price, paid, promised } }: { order: Order }) {
  const money = useMoney()
  const units = useUnits()
  return (
    <span className="quiet">
      {worn && measureMm && `${worn} ${worn === 'finger' ? units.finger(measureMm) : units.length(measureMm)}; `}
      {money.say(price)}
      {paid > 0 && (paid >= price ? ', paid' : `, ${money.say(paid)} paid`)}
      {promised && `; ${promised}`}
    </span>
  )
}

interface ActsProps {
  readonly order: Order
  readonly run: (what: 'kits' | 'cancel') => void
  readonly handOver: (kits: number) => void
  readonly change: () => void
}

function Acts({ order, run, handOver, change }: ActsProps) {
  return (
    <>
      {order.readiness === 'unplanned' && (
        <Button
          size="small"
          type="primary"
          onClick={() => run('kits')}
          aria-label={`Plan the kit for ${order.customer}`}
        >
          Plan
        </Button>
      )}
      {order.readiness === 'ready' && <HandOver order={order} run={handOver} />}
      <Button size="small" onClick={change} aria-label={`Change the order for ${order.customer}`}>
        Change
      </Button>
      <AskFirst
        title={`Call off ${order.handed > 0 ? 'the rest of ' : ''}the order for ${order.customer}?`}
        follows="What its kit holds is given back to the shelf, and the order is closed. For a day it can be opened again."
        ok="Call the order off"
        run={() => run('cancel')}
      >
        <Button size="small" aria-label={`Call off the order for ${order.customer}`}>
          Call off
        </Button>
      </AskFirst>
    </>
  )
}
