import { useInfiniteQuery } from '@tanstack/react-query'
import type { Item } from '@tessellum/contract/stock'
import { counted } from '@tessellum/core/measure/counted'
import { Button, Table } from 'antd'
import { useDeferredValue, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { ListFilterBar, useListFilter } from '../frame/list-filter'
import { Loading } from '../frame/loading'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { StateTag } from '../frame/state-tag'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { read } from '../shop/queries'
import { ItemForm } from './item-form'
import { Quantity } from './quantity-cell'
import styles from './stock-page.module.css'
import { Swatch } from './swatch'

const shown = ['all', 'beads', 'stones', 'thread', 'kits', 'low'] as const
const orders = { colour: 'by colour', code: 'by code', kind: 'by kind', place: 'by place' } as const

/** The shelf: every item with what is on it, promised, free and coming; page after page as it is looked along. */
export function StockPage() {
  usePageTitle('Stock')
  const navigate = useNavigate()
  const mayKeep = useMay('stock.keep')
  const maySell = useMay('sales.keep')
  const [adding, setAdding] = useState(false)
  const { filter, change } = useListFilter(shown, orders)
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery(
    read.shelf(useDeferredValue(filter)),
  )
  if (error && !data) return <Trouble error={error} />
  if (!data) return <Loading what="Loading the shelf" />
  const items = data.pages.flatMap((page) => page.items)
  const [first] = data.pages
  return (
    <div className="page">
      <PageHead
        title="Stock"
        beside={
          <span className="quiet figures">
            {first?.more && 'more than '}
            {counted(first?.total ?? 0, 'item')}
          </span>
        }
      >
        {maySell && <Link to="/counter">Counter</Link>}
        <Link to="/stock/count">Count a place</Link>
        <Link to="/stock/files">Files</Link>
        {mayKeep && <Button onClick={() => setAdding(true)}>New item</Button>}
      </PageHead>
      <ListFilterBar
        filter={filter}
        change={change}
        shown={shown.map((value) => ({ value, label: value === 'low' ? `running low (${first?.low ?? 0})` : value }))}
        orders={orders}
        find="Find an item"
        findBy="Colour, code, kind, maker, lot"
      />
      <div className="rows">
        <Table<Item>
          rowKey="id"
          dataSource={items}
          pagination={false}
          locale={{ emptyText: <div className="empty">Nothing on the shelf matches.</div> }}
          onRow={(item) => ({ onClick: () => void navigate(`/stock/${item.id}`), style: { cursor: 'pointer' } })}
          columns={[
            {
              title: 'Item',
              key: 'item',
              render: (_, item) => (
                <span className="hands">
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
            { title: 'Kind', key: 'kind', render: (_, item) => `${item.kind} ${item.size}` },
            { title: 'Code', dataIndex: 'colourCode' },
            { title: 'Maker', dataIndex: 'maker', responsive: ['lg'] },
            { title: 'Place', dataIndex: 'place' },
            figure('On hand', ({ onHand }) => onHand),
            figure('Promised', ({ reserved }) => reserved),
            figure('Coming', ({ coming }) => coming),
            {
              title: 'Free',
              key: 'free',
              align: 'right',
              render: (_, item) => (
                <>
                  {isLow(item) && <StateTag look="draft">low</StateTag>}{' '}
                  <strong className={styles.free}>
                    <Quantity quantity={item.onHand - item.reserved} unit={item.unit} />
                  </strong>
                </>
              ),
            },
          ]}
        />
        {hasNextPage && (
          <div className={`pad ${styles.more}`}>
            <Button onClick={() => void fetchNextPage()} loading={isFetchingNextPage}>
              Load more ({items.length} of {first?.total})
            </Button>
          </div>
        )}
      </div>
      {adding && <ItemForm close={() => setAdding(false)} />}
    </div>
  )
}

const figure = (title: string, of: (item: Item) => number) => ({
  title,
  key: title,
  align: 'right' as const,
  render: (_: unknown, item: Item) =>
    of(item) ? <Quantity quantity={of(item)} unit={item.unit} /> : <span className="quiet">none</span>,
})

const isLow = (item: Item) => item.onHand - item.reserved < item.reorderBelow
