import { useQuery } from '@tanstack/react-query'
import type { Item } from '@tessellum/contract/stock'
import { Input, Segmented, Table } from 'antd'
import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { read } from '../shop/queries'
import { Quantity } from './quantity-cell'
import { Swatch } from './swatch'

const shown = ['all', 'beads', 'stones', 'thread', 'low'] as const

/** The shelf: every item with what is on it, promised and free. */
export function StockPage() {
  usePageTitle('Stock')
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const { data: items, error } = useQuery(read.items)
  // Kept here, where two quick changes cannot overtake each other, and told to the address, where it outlives a reload.
  const [filter, setFilter] = useState(() => ({
    typed: params.get('find') ?? '',
    only: shown.find((each) => each === params.get('show')) ?? 'all',
  }))
  const change = (next: Partial<typeof filter>) => {
    const { typed, only } = { ...filter, ...next }
    setFilter({ typed, only })
    setParams({ ...(typed ? { find: typed } : {}), ...(only === 'all' ? {} : { show: only }) }, { replace: true })
  }
  if (error && !items) return <Trouble error={error} />
  if (!items) return <Loading what="Looking along the shelf" />
  const { typed, only } = filter
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const found = items.filter((item) => isShown(item, only) && words.every((word) => textOf(item).includes(word)))
  return (
    <div className="page">
      <div className="page-head">
        <h1>Stock</h1>
        <span className="quiet figures">
          {found.length} of {items.length} items
        </span>
        <span className="spacer" />
        <Segmented
          aria-label="Show"
          value={only}
          onChange={(only) => change({ only })}
          options={shown.map((value) => ({
            value,
            label: value === 'low' ? `running low (${items.filter(isLow).length})` : value,
          }))}
        />
        <Input.Search
          aria-label="Find an item"
          placeholder="Colour, code, kind, maker"
          allowClear
          style={{ width: 290 }}
          defaultValue={typed}
          onChange={({ target }) => change({ typed: target.value })}
        />
      </div>
      <div className="rows">
        <Table<Item>
          rowKey="id"
          dataSource={found}
          pagination={found.length > 50 ? { pageSize: 50, showSizeChanger: false } : false}
          locale={{ emptyText: <div className="empty">Nothing on the shelf fits that.</div> }}
          onRow={(item) => ({ onClick: () => void navigate(`/stock/${item.id}`), style: { cursor: 'pointer' } })}
          columns={[
            {
              title: 'Item',
              key: 'item',
              sorter: (a, b) => a.colourName.localeCompare(b.colourName),
              render: (_, item) => (
                <span className="name-cell">
                  <Swatch item={item} />
                  <span>
                    <Link to={`/stock/${item.id}`} onClick={(event) => event.stopPropagation()}>
                      {item.colourName}
                    </Link>
                    {item.finish && <span className="quiet">, {item.finish}</span>}
                  </span>
                </span>
              ),
            },
            {
              title: 'Kind',
              key: 'kind',
              sorter: (a, b) => `${a.kind} ${a.size}`.localeCompare(`${b.kind} ${b.size}`),
              render: (_, item) => `${item.kind} ${item.size}`,
            },
            { title: 'Code', dataIndex: 'colourCode' },
            { title: 'Maker', dataIndex: 'maker', sorter: (a, b) => a.maker.localeCompare(b.maker) },
            { title: 'Place', dataIndex: 'place' },
            {
              title: 'On hand',
              key: 'onHand',
              align: 'right',
              sorter: (a, b) => a.onHand - b.onHand,
              render: (_, item) => <Quantity quantity={item.onHand} unit={item.unit} />,
            },
            {
              title: 'Promised',
              key: 'reserved',
              align: 'right',
              sorter: (a, b) => a.reserved - b.reserved,
              render: (_, item) =>
                item.reserved ? (
                  <Quantity quantity={item.reserved} unit={item.unit} />
                ) : (
                  <span className="quiet">none</span>
                ),
            },
            {
              title: 'Free',
              key: 'free',
              align: 'right',
              sorter: (a, b) => a.onHand - a.reserved - (b.onHand - b.reserved),
              render: (_, item) => (
                <>
                  {isLow(item) && <span className="state draft">low</span>}{' '}
                  <strong style={{ display: 'inline-block', minWidth: 74 }}>
                    <Quantity quantity={item.onHand - item.reserved} unit={item.unit} />
                  </strong>
                </>
              ),
            },
          ]}
        />
      </div>
    </div>
  )
}

const isLow = (item: Item) => item.onHand - item.reserved < item.reorderBelow

function isShown(item: Item, only: (typeof shown)[number]): boolean {
  switch (only) {
    case 'all':
      return true
    case 'low':
      return isLow(item)
    case 'beads':
      return item.category === 'bead'
    case 'stones':
      return item.category === 'stone'
    case 'thread':
      return item.category === 'thread'
  }
}

const textOf = (item: Item) =>
  `${item.colourName} ${item.colourCode} ${item.kind} ${item.size} ${item.maker} ${item.finish} ${item.place}`.toLowerCase()
