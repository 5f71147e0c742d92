import { Input, Segmented, Select } from 'antd'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import styles from './list-filter.module.css'
import { Toolbar } from './page-head'

export interface ListFilter<Show extends string, By extends string> {
  readonly find: string
  readonly show: Show
  readonly by: By
}

/**
 * What a list shows, in which order, and what is looked for in it. Kept here, where two quick changes cannot overtake each other, and told to the
 * address, where it outlives a reload.
 *
 * @param shown the first is usual
 * @param orders their names; the first is usual
 */
export function useListFilter<Show extends string, By extends string>(
  shown: readonly Show[],
  orders: Readonly<Record<By, string>>,
) {
  const [usualShow, usualBy] = [shown[0] as Show, Object.keys(orders)[0] as By]
  const [params, setParams] = useSearchParams()
  const [filter, setFilter] = useState<ListFilter<Show, By>>(() => ({
    find: params.get('find') ?? '',
    show: shown.find((each) => each === params.get('show')) ?? usualShow,
    by: (Object.keys(orders) as By[]).find((each) => each === params.get('by')) ?? usualBy,
  }))
  const change = (next: Partial<ListFilter<Show, By>>) => {
    const { find, show, by } = { ...filter, ...next }
    setFilter({ find, show, by })
    setParams(
      { ...(find ? { find } : {}), ...(show === usualShow ? {} : { show }), ...(by === usualBy ? {} : { by }) },
      { replace: true },
    )
  }
  return { filter, change }
}

interface ListFilterBarProps<Show extends string, By extends string> {
  readonly filter: ListFilter<Show, By>
  readonly change: (next: Partial<ListFilter<Show, By>>) => void
  readonly shown: readonly { readonly value: Show; readonly label: string }[]
  readonly orders: Readonly<Record<By, string>>
  /** What is found, as "Find an item", and by what. */
  readonly find: string
  readonly findBy: string
}

export function ListFilterBar<Show extends string, By extends string>({
  filter,
  change,
  shown,
  orders,
  find,
  findBy,
}: ListFilterBarProps<Show, By>) {
  return (
    <Toolbar>
      <Segmented
        aria-label="Show"
        value={filter.show}
        onChange={(show) => change({ show })}
        options={shown.map((each) => ({ ...each }))}
      />
      <span className="spacer" />
      <Select<By>
        aria-label="In which order"
        popupMatchSelectWidth={false}
        value={filter.by}
        onChange={(by) => change({ by })}
        options={(Object.keys(orders) as By[]).map((value) => ({ value, label: orders[value] }))}
      />
      <Input.Search
        aria-label={find}
        placeholder={findBy}
        allowClear
        className={styles.find ?? ''}
        defaultValue={filter.find}
        onChange={({ target }) => change({ find: target.value })}
      />
    </Toolbar>
  )
}
