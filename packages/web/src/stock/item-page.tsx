import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { handMove, type ItemStory, type Move } from '@tessellum/contract/stock'
import { handMoves } from '@tessellum/core/stock/moves'
import { Button, Form, Input, Select, Table } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { OrderItem } from '../buying/order-item'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { Fact, Facts } from '../frame/facts'
import { NumberField } from '../frame/number-field'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import sideBySideStyles from '../frame/side-by-side.module.css'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { ItemForm } from './item-form'
import styles from './item-page.module.css'
import { Lots } from './lots'
import { Quantity } from './quantity-cell'
import { ReceiveLot } from './receive-lot'
import { StoryChart } from './story-chart'
import { Swatch } from './swatch'

export function ItemPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.item(id))
  usePageTitle(data?.colourName ?? 'Stock')
  if (error && !data) return <Trouble error={error} />
  return data ? <Story item={data} /> : <PageLoading what="Fetching the item" />
}

const kindWords: Readonly<Record<string, string>> = {
  receive: 'received',
  correction: 'corrected',
  reserve: 'promised',
  release: 'given back',
  issue: 'into kits',
  sale: 'sold',
  scrap: 'scrapped',
  reverse: 'reversed',
  transfer: 'moved',
  return: 'came back',
  open: 'opened',
}

/** One item: what there is, in which lots, and every move that made it so. */
function Story({ item }: { item: ItemStory }) {
  const units = useUnits()
  const money = useMoney()
  const mayMove = useMay('stock.move')
  const mayBuy = useMay('stock.buy')
  const mayKeep = useMay('stock.keep')
  const [receiving, setReceiving] = useState(false)
  const [ordering, setOrdering] = useState(false)
  const [changing, setChanging] = useState(false)
  // Set when older moves are asked for: those before the oldest that came with the item.
  const [before, setBefore] = useState<number>()
  const older = useInfiniteQuery({ ...read.olderMoves(item.id, before ?? 0), enabled: before !== undefined })
  const moves = [
    ...item.moves,
    ...(older.data?.pages.flatMap((page) => page.moves) ?? []).filter(
      ({ id }) => !item.moves.some((move) => move.id === id),
    ),
  ]
  const free = item.onHand - item.reserved
  const { bead } = item
  return (
    <div className="page stack">
      <PageHead
        title={item.colourName}
        before={<Swatch item={item} size={46} />}
        under={
          <span className="quiet">
            {item.kind} {item.size}, <span className="code">{item.colourCode}</span>, {item.maker}
            {item.finish ? `, ${item.finish}` : ''}
          </span>
        }
      >
        {mayBuy && item.category !== 'kit' && <Button onClick={() => setOrdering(true)}>Order</Button>}
        {mayMove && <Button onClick={() => setReceiving(true)}>Receive a delivery</Button>}
        {mayKeep && item.category !== 'kit' && <Button onClick={() => setChanging(true)}>Change</Button>}
        <Link to="/stock">All stock</Link>
      </PageHead>
      {receiving && (
        <ReceiveLot
          item={{ id: item.id, name: item.colourName, unit: item.unit }}
          quantity={item.packs[0]?.amount ?? 0}
          close={() => setReceiving(false)}
        />
      )}
      {ordering && <OrderItem item={item} close={() => setOrdering(false)} />}
      {changing && <ItemForm item={item} close={() => setChanging(false)} />}
      {item.cautions && <p className="notice trouble">{item.cautions}</p>}
      <Facts>
        <Fact label="free">
          <Quantity quantity={free} unit={item.unit} />
        </Fact>
        <Fact label="promised to batches">
          <Quantity quantity={item.reserved} unit={item.unit} />
        </Fact>
        <Fact label="on hand">
          <Quantity quantity={item.onHand} unit={item.unit} />
        </Fact>
        {item.coming > 0 && (
          <Fact label="coming">
            <Quantity quantity={item.coming} unit={item.unit} />
          </Fact>
        )}
        {bead && (
          <Fact label="free, about">
            {Math.floor(free / (item.unit === 'mg' ? bead.massMg : 1))
              .toLocaleString('en-GB')
              .replaceAll(',', ' ')}{' '}
            beads
          </Fact>
        )}
        <Fact label="kept in">{item.place || 'no place yet'}</Fact>
        {item.packs.length > 0 && (
          <Fact label="bought in">
            <span className={styles.small}>
              {item.packs
                .map(({ amount, price }) => `${units.quantity(amount, item.unit)} ${money.say(price)}`)
                .join(' · ')}
            </span>
          </Fact>
        )}
        {bead && (
          <Fact label="long, across, hole, each">
            <span className={styles.small}>
              {bead.lengthMm} · {bead.acrossMm} · {bead.boreMm} mm · {bead.massMg} mg
            </span>
          </Fact>
        )}
      </Facts>
      <StoryChart item={item} />
      <div className={sideBySideStyles.two}>
        <div className="rows">
          <Table<Move>
            rowKey="id"
            size="small"
            dataSource={moves}
            pagination={moves.length > 15 ? { pageSize: 15, showSizeChanger: false } : false}
            title={() => <h2>Moves</h2>}
            locale={{ emptyText: <div className="empty">Nothing has moved yet.</div> }}
            columns={[
              { title: 'When', key: 'at', render: (_, move) => dayjs(move.at).format('D MMM YYYY, HH:mm') },
              { title: 'What', key: 'kind', render: (_, move) => kindWords[move.kind] ?? move.kind },
              {
                title: 'On hand',
                key: 'onHand',
                align: 'right',
                render: (_, move) => (move.onHand ? <Quantity quantity={move.onHand} unit={item.unit} sign /> : ''),
              },
              {
                title: 'Promised',
                key: 'reserved',
                align: 'right',
                render: (_, move) => (move.reserved ? <Quantity quantity={move.reserved} unit={item.unit} sign /> : ''),
              },
              { title: 'Lot', dataIndex: 'lotCode' },
              {
                title: 'Why',
                key: 'why',
                render: (_, move) => (
                  <>
                    {move.batchId && <Link to={`/kits/${move.batchId}`}>{move.batchName}</Link>}
                    {move.batchId && move.reason && ': '}
                    {move.reason}
                  </>
                ),
              },
              { title: 'By', dataIndex: 'by' },
              ...(mayMove
                ? [
                    {
                      title: '',
                      key: 'reverse',
                      render: (_: unknown, move: Move) =>
                        move.reversed ? (
                          <span className="quiet">taken back</span>
                        ) : Object.hasOwn(handMoves, move.kind) ? (
                          <Reverse move={move} />
                        ) : null,
                    },
                  ]
                : []),
            ]}
          />
          {(older.data ? older.hasNextPage : item.moreMoves) && (
            <div className={`pad ${styles.more}`}>
              <Button
                onClick={() =>
                  before === undefined ? setBefore(item.moves[item.moves.length - 1]?.id) : void older.fetchNextPage()
                }
                loading={older.isFetching}
              >
                Older moves
              </Button>
            </div>
          )}
        </div>
        <div className="stack">
          <Lots item={item} mayMove={mayMove} />
          {item.purchases.length > 0 && <Coming item={item} />}
          {mayMove && item.lots.length > 0 && <MoveForm item={item} />}
        </div>
      </div>
    </div>
  )
}

/** What is ordered and on its way. */
function Coming({ item }: { item: ItemStory }) {
  const units = useUnits()
  const money = useMoney()
  return (
    <div className="sheet pad">
      <h2>On its way</h2>
      {item.purchases.map(({ id, amount, supplier, expectedOn, cost }) => (
        <p key={id} className="figures">
          <strong>{units.quantity(amount, item.unit)}</strong> from {supplier}, {money.say(cost)}, expected{' '}
          {dayjs(expectedOn).format('D MMMM')}
        </p>
      ))}
      <Link to="/kits/buy">Received or called off under What to buy</Link>
    </div>
  )
}

/** A wrong move is taken back by another: the ledger forgets nothing. */
function Reverse({ move }: { move: Move }) {
  const reverse = useIdempotentMutation(
    (reason: string) => call('POST /api/moves/:id/reverse', { params: { id: move.id }, body: { reason } }),
    { stale: ['stock'], said: 'Taken back by another move.', tell: true },
  )
  return (
    <Button
      size="small"
      type="link"
      loading={reverse.busy}
      onClick={() => reverse.run('posted by mistake')}
      aria-label={`Take back: ${kindWords[move.kind]}, lot ${move.lotCode}`}
    >
      Take back
    </Button>
  )
}

interface MoveFields {
  lotId: number
  kind: 'receive' | 'sale' | 'scrap' | 'correction'
  amount: number
  reason: string
}

/** Posts a move by hand. */
function MoveForm({ item }: { item: ItemStory }) {
  const units = useUnits()
  const [form] = Form.useForm<MoveFields>()
  const post = useIdempotentMutation(
    ({ lotId, kind, amount, reason }: MoveFields) => {
      const body = handMove.parse({ kind, quantity: units.recorded(amount, item.unit), reason })
      return call('POST /api/lots/:id/moves', { params: { id: lotId }, body })
    },
    {
      stale: ['stock'],
      said: 'The move is in the ledger.',
      undo:
        ({ moveId }) =>
        () =>
          call('POST /api/moves/:id/reverse', { params: { id: moveId }, body: { reason: 'undone at once' } }),
      after: () => form.resetFields(['amount', 'reason']),
    },
  )
  return (
    <Form
      name="item-page"
      form={form}
      className="sheet pad"
      layout="vertical"
      requiredMark={false}
      onFinish={post.run}
      initialValues={{ kind: 'sale', lotId: item.lots[0]?.id }}
    >
      <h2 className={styles.heading}>Post a move</h2>
      <Form.Item label="What" name="kind">
        <Select
          options={[
            { value: 'sale', label: 'Sold at the counter' },
            { value: 'receive', label: 'Received' },
            { value: 'scrap', label: 'Scrapped' },
            { value: 'correction', label: 'Count corrected' },
          ]}
        />
      </Form.Item>
      <Form.Item label="Lot" name="lotId">
        <Select options={item.lots.map((lot) => ({ value: lot.id, label: lot.code }))} />
      </Form.Item>
      <Form.Item
        label={`How much, in ${units.word[item.unit]}`}
        name="amount"
        rules={rulesOf(handMove.shape.quantity, (typed) => units.recorded(Number(typed), item.unit))}
      >
        <NumberField step={item.unit === 'piece' ? 1 : 0.1} {...(item.unit === 'piece' ? { precision: 0 } : {})} />
      </Form.Item>
      <Form.Item label="Why" name="reason" rules={rulesOf(handMove.shape.reason)}>
        <Input maxLength={200} />
      </Form.Item>
      <ErrorNotice error={post.refused} />
      <Button type="primary" htmlType="submit" loading={post.busy}>
        Post
      </Button>
    </Form>
  )
}
