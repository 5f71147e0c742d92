import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { LoseBeads, Packing, PackingTask, SwapLot } from '@tessellum/contract/packing'
import { counted } from '@tessellum/core/measure/counted'
import { perSpoken, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { Button, Select } from 'antd'
import { useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { NumberField } from '../frame/number-field'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './packing.module.css'

interface MishapsProps {
  readonly packing: Packing
  readonly task: PackingTask
}

/** What goes wrong with a tube, put down where it happens: it is spilt, it holds less than was thought, another is taken. */
export function Mishaps({ packing, task }: MishapsProps) {
  const client = useQueryClient()
  const { data: item } = useQuery(read.item(task.itemId))
  const [amount, setAmount] = useState<number | null>(null)
  const [other, setOther] = useState<number>()
  const options = {
    of: `packing ${packing.id}`,
    stale: ['stock', 'batches', 'buy-list'],
    after: (answer: Packing) => {
      client.setQueryData(read.packing(packing.id).queryKey, answer)
      setAmount(null)
      setOther(undefined)
    },
  }
  const lose = useIdempotentMutation(
    (body: LoseBeads) => call('POST /api/batches/:id/losses', { params: { id: packing.id }, body }),
    { ...options, said: 'Loss recorded. Bags that went short are filled from other lots where these have enough.' },
  )
  const swap = useIdempotentMutation(
    (body: SwapLot) => call('POST /api/batches/:id/swaps', { params: { id: packing.id }, body }),
    {
      ...options,
      said: 'The empty bags are filled from that lot.',
    },
  )
  const again = useIdempotentMutation(
    (_: null) => call('POST /api/batches/:id/lay-out', { params: { id: packing.id } }),
    {
      stale: ['packing', 'batches', 'stock'],
    },
  )
  const { itemId, lotId } = task
  if (lotId === null)
    return (
      <div className="notice trouble">
        <p>
          No lot holds this for {counted(task.bags.length, 'bag')} any more. Receive some, or change the batch; then lay
          it out again.
        </p>
        <Button onClick={() => again.run(null)} loading={again.busy}>
          Lay out again
        </Button>
        <ErrorNotice error={again.refused} />
      </div>
    )
  const quantity = amount === null ? 0 : Math.round(amount * perSpoken[task.unit])
  const others = (item?.lots ?? []).filter(({ id, onHand, reserved }) => id !== lotId && onHand > reserved)
  return (
    <details className={styles.standIn}>
      <summary className="quiet">Something is wrong with this tube</summary>
      <div className="hands">
        <NumberField
          aria-label={`Lost, ${spokenUnit[task.unit]}`}
          min={0}
          value={amount}
          onChange={setAmount}
          suffix={spokenUnit[task.unit]}
          className={styles.figure ?? ''}
        />
        <Button
          disabled={quantity === 0}
          loading={lose.busy}
          onClick={() => lose.run({ itemId, lotId, how: 'spilt', quantity })}
        >
          Record as spilt
        </Button>
        <Button
          disabled={quantity === 0}
          loading={lose.busy}
          onClick={() => lose.run({ itemId, lotId, how: 'missing', quantity })}
        >
          Record as missing
        </Button>
      </div>
      <div className="hands">
        <Select
          aria-label="Another lot"
          placeholder="Another lot"
          className={styles.lot ?? ''}
          value={other ?? null}
          onChange={(next) => setOther(next ?? undefined)}
          notFoundContent="No other lot has any free"
          options={others.map(({ id, code, place, onHand, reserved }) => ({
            value: id,
            label: `${code}, ${place || 'no place'}, ${sayQuantity(onHand - reserved, task.unit)} free`,
          }))}
        />
        <Button
          disabled={other === undefined}
          loading={swap.busy}
          onClick={() => other !== undefined && swap.run({ itemId, fromLotId: lotId, toLotId: other })}
        >
          Use this lot for the unfilled bags
        </Button>
      </div>
      <ErrorNotice error={lose.refused ?? swap.refused} />
    </details>
  )
}
