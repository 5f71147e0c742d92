import type { ReturnSold, Sale } from '@tessellum/contract/sales'
import { perSpoken, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { Modal } from 'antd'
import { useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { NumberField } from '../frame/number-field'
import { useMoney } from '../settings/use-shop-settings'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './counter.module.css'

/** Asks what of a sale comes back and what is given for it; usually its share of the price. */
export function TakeBack({ sale, close }: { sale: Sale; close: () => void }) {
  const money = useMoney()
  const [amounts, setAmounts] = useState<Readonly<Record<number, number | null>>>({})
  const [refunds, setRefunds] = useState<Readonly<Record<number, number | null>>>({})
  const back = useIdempotentMutation(
    (body: ReturnSold) => call('POST /api/sales/:id/returns', { params: { id: sale.id }, body }),
    { stale: ['sales', 'stock', 'buy-list', 'bench'], said: 'It is back on the shelf.', after: close },
  )
  const rows = sale.lines.map((line) => {
    const quantity = Math.round((amounts[line.id] ?? 0) * perSpoken[line.unit])
    const share = Math.min(line.price - line.refunded, Math.round((line.price * quantity) / line.quantity))
    return { line, left: line.quantity - line.returned, quantity, refund: refunds[line.id] ?? share }
  })
  const lines = rows
    .filter(({ quantity }) => quantity > 0)
    .map(({ line, quantity, refund }) => ({ lineId: line.id, quantity, refund }))
  return (
    <Modal
      open
      title={`Take back from sale ${sale.id}`}
      okText={`Give back ${money.say(lines.reduce((sum, { refund }) => sum + refund, 0))}`}
      okButtonProps={{ disabled: lines.length === 0 }}
      confirmLoading={back.busy}
      onCancel={close}
      onOk={() => back.run({ lines })}
    >
      <ul className={styles.lines}>
        {rows.map(({ line, left, refund }) => (
          <li key={line.id} aria-label={line.name}>
            <span className={styles.name}>
              {line.name}
              <br />
              <span className="quiet figures">
                {sayQuantity(left, line.unit)} of {sayQuantity(line.quantity, line.unit)}, {money.say(line.price)}
              </span>
            </span>
            <NumberField
              aria-label={`How much of ${line.name} comes back`}
              min={0}
              max={left / perSpoken[line.unit]}
              disabled={left === 0}
              value={amounts[line.id] ?? null}
              suffix={spokenUnit[line.unit]}
              onChange={(amount) => setAmounts({ ...amounts, [line.id]: amount })}
            />
            <NumberField
              aria-label={`Given back for ${line.name}`}
              min={0}
              max={(line.price - line.refunded) / 100}
              precision={2}
              disabled={left === 0}
              value={refund / 100}
              prefix={money.sign}
              onChange={(given) =>
                setRefunds({ ...refunds, [line.id]: given === null ? null : Math.round(given * 100) })
              }
            />
          </li>
        ))}
      </ul>
      <ErrorNotice error={back.refused} />
    </Modal>
  )
}
