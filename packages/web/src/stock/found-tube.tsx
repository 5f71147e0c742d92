import { useInfiniteQuery } from '@tanstack/react-query'
import type { Item } from '@tessellum/contract/stock'
import type { FoundTube as Found, Stocktake } from '@tessellum/contract/stocktake'
import { itemName } from '@tessellum/core/stock/item-name'
import { perSpoken, spokenUnit } from '@tessellum/core/stock/quantity'
import { metricUnits } from '@tessellum/core/stock/spoken-units'
import { Button, Input, Select } from 'antd'
import { useDeferredValue, useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { NumberField } from '../frame/number-field'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './found-tube.module.css'
import { ItemOption } from './item-option'

/** A tube that is there and that the list does not have: it becomes a lot of its own when the count is posted. */
export function FoundTube({ stocktakeId, keep }: { stocktakeId: number; keep: (answer: Stocktake) => void }) {
  const [typed, setTyped] = useState('')
  const [item, setItem] = useState<Item>()
  const [code, setCode] = useState('')
  const [amount, setAmount] = useState<number | null>(null)
  const find = useDeferredValue(typed.trim())
  const { data } = useInfiniteQuery({
    ...read.shelf({ find, show: 'all', by: 'colour' }),
    enabled: find.length > 1,
  })
  const add = useIdempotentMutation(
    (body: Found) => call('POST /api/stocktakes/:id/found', { params: { id: stocktakeId }, body }),
    {
      stale: ['stocktakes'],
      said: 'Added to the list.',
      after: (answer) => {
        keep(answer)
        setItem(undefined)
        setCode('')
        setAmount(null)
      },
    },
  )
  const items = find.length > 1 ? (data?.pages[0]?.items ?? []) : []
  const quantity = item && amount !== null ? Math.round(amount * perSpoken[item.unit]) : 0
  return (
    <details>
      <summary>A tube that is not in the list</summary>
      <div className={`hands ${styles.choices}`}>
        <Select
          aria-label="What is in the tube"
          placeholder="What is in it"
          showSearch={{ filterOption: false, onSearch: setTyped }}
          className={styles.item ?? ''}
          value={item ? item.id : null}
          notFoundContent={find.length > 1 ? 'No such item: add it first' : 'Type two letters of it'}
          popupMatchSelectWidth={520}
          optionRender={({ data: { item: each } }) => <ItemOption item={each} units={metricUnits()} />}
          options={[...(item && !items.some(({ id }) => id === item.id) ? [item] : []), ...items].map((each) => ({
            value: each.id,
            label: itemName(each),
            item: each,
          }))}
          onChange={(id) => setItem(items.find((each) => each.id === id) ?? item)}
        />
        <Input
          aria-label="Its lot code"
          placeholder="lot code"
          className={styles.lot ?? ''}
          maxLength={60}
          value={code}
          onChange={({ target }) => setCode(target.value)}
        />
        <NumberField
          aria-label="How much is in it"
          placeholder="how much"
          min={0}
          className={styles.quantity ?? ''}
          value={amount}
          onChange={setAmount}
          suffix={item ? spokenUnit[item.unit] : ''}
        />
        <Button
          loading={add.busy}
          disabled={!item || code.trim() === '' || quantity < 1}
          onClick={() => item && add.run({ itemId: item.id, code, quantity })}
        >
          Put it in the list
        </Button>
      </div>
      <ErrorNotice error={add.refused} />
    </details>
  )
}
