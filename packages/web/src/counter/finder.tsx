import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import type { Item } from '@tessellum/contract/stock'
import { itemName } from '@tessellum/core/stock/item-name'
import { metricUnits } from '@tessellum/core/stock/spoken-units'
import { Select } from 'antd'
import { useDeferredValue, useState } from 'react'
import { read } from '../shop/queries'
import { ItemOption } from '../stock/item-option'
import type { TillLine } from './till-lines'

type Found = Omit<TillLine, 'key' | 'perUnit' | 'typed'>

const nameOf = (item: Item) =>
  item.category === 'kit' ? `Kit: ${item.colourName}${item.size && `, ${item.size}`}` : itemName(item)

/** Finds what is sold: kits and anything else on the shelf, and patterns of which a version was kept. */
export function Finder({ onFound }: { onFound: (found: Found) => void }) {
  const [typed, setTyped] = useState('')
  const find = useDeferredValue(typed.trim())
  const { data: shelf } = useInfiniteQuery({
    ...read.shelf({ find, show: 'all', by: 'colour' }),
    enabled: find.length > 1,
  })
  const { data: patterns } = useQuery(read.patterns)
  const words = find.toLowerCase().split(/\s+/).filter(Boolean)
  const items = find.length > 1 ? (shelf?.pages[0]?.items ?? []).slice(0, 20) : []
  const named = (patterns ?? []).flatMap(({ id, title, version }) =>
    version !== null && find.length > 1 && words.every((word) => title.toLowerCase().includes(word))
      ? [{ id, title, version }]
      : [],
  )
  const options = [
    ...items.map((item) => ({
      value: `item ${item.id}`,
      label: nameOf(item),
      item,
      found: {
        of: { itemId: item.id },
        name: nameOf(item),
        item,
        unit: item.unit,
        amount: item.unit === 'piece' ? 1 : null,
      } satisfies Found,
    })),
    ...named.slice(0, 8).map(({ id, title, version }) => ({
      value: `pattern ${id}`,
      label: `Pattern: ${title}, version ${version}`,
      item: undefined,
      found: {
        of: { patternId: id, version },
        name: `Pattern: ${title}`,
        unit: 'piece',
        amount: 1,
      } satisfies Found,
    })),
  ]
  return (
    <Select
      aria-label="What is sold"
      placeholder="Kit, bead, stone, thread or pattern"
      showSearch
      filterOption={false}
      value={null}
      searchValue={typed}
      onSearch={setTyped}
      notFoundContent={find.length > 1 ? 'Nothing like it is on the shelf' : 'Type two letters of it'}
      size="large"
      options={options}
      optionRender={({ label, data }) => (data.item ? <ItemOption item={data.item} units={metricUnits()} /> : label)}
      onSelect={(_, option) => {
        const chosen = options.find(({ value }) => value === option.value)
        setTyped('')
        if (chosen) onFound(chosen.found)
      }}
    />
  )
}
