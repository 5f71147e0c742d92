import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { Customer } from '@tessellum/contract/customers'
import {
  type Order,
  order as orderAnswer,
  type SizedOrder,
  type SizeOrder,
  saveOrder,
} from '@tessellum/contract/orders'
import { type WristEase, wristEase } from '@tessellum/core/desk/wearer'
import { sayLength } from '@tessellum/core/measure/units'
import { Button, DatePicker, Form, Input, InputNumber, Modal, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { Link } from 'react-router'
import { z } from 'zod'
import { CustomerField, type Who } from '../customers/customer-field'
import { AskFirst } from '../frame/ask-first'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm, useKept } from '../frame/kept-form'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { isWhole, type LineFields, LineForm } from '../kits/line-form'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { call, ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { HandOver } from './hand-over'
import { ReadinessMark } from './readiness'

const stale = ['diary', 'bench', 'batches', 'stock', 'buy-list']
const _answers = z.array(orderAnswer)

/** One customer's pieces: sized, coloured, priced, promised. */
export function OrdersPage() {
  const money = useMoney()
  usePageTitle('Orders')
  const client = useQueryClient()
  const mayKeep = useMay('orders.keep')
  const mayKnow = useMay('customers.read')
  const { data, error } = useQuery(read.orders)
  const [taking, setTaking] = useState(false)
  const [changing, setChanging] = useState<Order>()
  const after = (orders: Order[]) => client.setQueryData(['orders'], orders)
  const act = useIdempotentMutation(
    ({ id, what }: { id: number; what: 'kits' | 'cancel' | 'reopen' }) =>
      call(`POST /api/orders/:id/${what}`, { params: { id } }),
    { stale, after },
  )
  const handOver = useIdempotentMutation(
    ({ id, kits }: { id: number; kits: number }) =>
      call('POST /api/orders/:id/hand-over', { params: { id }, body: { kits } }),
    { stale, after },
  )
  if (error && !data) return <Trouble error={error} />
  if (!data) return <Loading what="Fetching the orders" />
  return (
    <div className="page stack">
      <div className="page-head">
        <h1>Orders</h1>
        <span className="spacer" />
        {mayKeep && (
          <Button type="primary" onClick={() => setTaking(true)}>
            Take an order
          </Button>
        )}
        {mayKnow && <Link to="/customers">Customers</Link>}
        <Link to="/diary">The diary</Link>
      </div>
      <ErrorNotice error={act.refused ?? handOver.refused} />
      {data.length === 0 && (
        <div className="empty sheet">
          <h2>No orders yet</h2>
          <p>Take one: a measure, a colourway and a day are enough.</p>
        </div>
      )}
      {data.length > 0 && (
        <div className="rows">
          {data.map((each) => (
            <div className="batch-row order-row" key={each.id}>
              <span>
                <span className="day figures">{dayjs(each.wantedOn).format('D')}</span>{' '}
                <span className="quiet">{dayjs(each.wantedOn).format('MMM')}</span>
              </span>
              <span>
                <strong>
                  {each.customerId !== null && mayKnow ? (
                    <Link to={`/customers/${each.customerId}`}>{each.customer}</Link>
                  ) : (
                    each.customer
                  )}
                </strong>
                , {each.kits > 1 && `${each.kits} x `}
                {each.pattern}
                {each.size && `, ${each.size}`}, in {each.colourway}
                <br />
                <span className="quiet">
                  {each.worn && each.measureMm && `${each.worn} ${sayLength(each.measureMm)}; `}
                  {money.say(each.price)}
                  {each.paid > 0 && (each.paid >= each.price ? ', paid' : `, ${money.say(each.paid)} paid`)}
                  {each.promised && `; ${each.promised}`}
                </span>
              </span>
              <span>{each.batchId !== null && <Link to={`/kits/${each.batchId}`}>its batch</Link>}</span>
              <span>
                {each.state === 'taken' ? (
                  <>
                    <ReadinessMark readiness={each.readiness} />
                    {each.handed > 0 && (
                      <>
                        <br />
                        <span className="quiet figures">
                          {each.handed} of {each.kits} handed over
                        </span>
                      </>
                    )}
                  </>
                ) : (
                  <span className="state cancelled">{each.state === 'done' ? 'handed over' : 'called off'}</span>
                )}
              </span>
              <span style={{ display: 'grid', gap: 4 }}>
                {mayKeep && each.state === 'taken' && (
                  <Acts
                    order={each}
                    run={(what) => act.run({ id: each.id, what })}
                    handOver={(kits) => handOver.run({ id: each.id, kits })}
                    change={() => setChanging(each)}
                  />
                )}
                {mayKeep && each.undoable && (
                  <Button
                    size="small"
                    onClick={() => act.run({ id: each.id, what: 'reopen' })}
                    aria-label={
                      each.state === 'taken'
                        ? `Take back what was last handed over to ${each.customer}`
                        : `Open the order for ${each.customer} again`
                    }
                  >
                    {each.state === 'taken' ? 'Take back' : 'Open again'}
                  </Button>
                )}
              </span>
            </div>
          ))}
        </div>
      )}
      {taking && <OrderForm close={() => setTaking(false)} />}
      {changing && <OrderForm key={changing.id} order={changing} close={() => setChanging(undefined)} />}
    </div>
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

interface Fields {
  readonly customer: Who
  readonly worn?: 'wrist' | 'neck' | 'finger'
  /** In cm, as people say it. */
  readonly measure?: number
  readonly day: Dayjs
  readonly price: number
  readonly paid: number
  readonly promised: string
}

const lineOf = ({ patternId, version, size, colourwayId, kits }: Order): LineFields => ({
  patternId,
  version,
  size,
  colourwayId,
  kits,
})

/** Takes an order, or changes one. */
function OrderForm({ order, close }: { order?: Order; close: () => void }) {
  const money = useMoney()
  const client = useQueryClient()
  const [form] = Form.useForm<Fields>()
  const name = `order-${order?.id ?? 'new'}`
  const kept = useKept<LineFields>(`${name}-line`, order ? lineOf(order) : { kits: 1 })
  const { value: line, change: setLine } = kept
  const [sized, setSized] = useState<SizedOrder>()
  const [known, setKnown] = useState<Customer>()
  const [ease, setEase] = useState<WristEase>('usual')
  const worn = Form.useWatch('worn', form)
  const measure = Form.useWatch('measure', form)
  const size = useIdempotentMutation((body: SizeOrder) => call('POST /api/orders/size', { body }), {
    after: (answer) => {
      setSized(answer)
      const [best] = answer.ways
      if (best) setLine({ ...line, size: best.size })
    },
  })
  /** Whoever is on record has told their measures, and what they do not bear. */
  const take = (customer: Customer) => {
    setKnown(customer)
    const { wristMm, neckMm, fingerMm } = customer
    const measures = { wrist: wristMm, neck: neckMm, finger: fingerMm }
    const [of] = worn ? [worn] : (['wrist', 'neck', 'finger'] as const).filter((each) => measures[each] !== null)
    const mm = of && measures[of]
    if (of && mm && !measure) form.setFieldsValue({ worn: of, measure: mm / 10 })
  }
  const save = useIdempotentMutation(
    ({ customer, day, price, paid, promised }: Fields) => {
      const read = saveOrder.safeParse({
        customer: customer.name,
        customerId: customer.id,
        worn: worn && measure ? worn : null,
        measureMm: worn && measure ? measure * 10 : null,
        ...line,
        size: line.size ?? '',
        wantedOn: day.format('YYYY-MM-DD'),
        price: Math.round((price ?? 0) * 100),
        paid: Math.round((paid ?? 0) * 100),
        promised: promised ?? '',
      })
      if (!read.success)
        throw new ShopError({ code: 'bad-input', message: read.error.issues[0]?.message ?? 'Something is missing.' })
      return order
        ? call('PUT /api/orders/:id', { params: { id: order.id }, body: read.data })
        : call('POST /api/orders', { body: read.data })
    },
    {
      stale,
      said: order ? 'The order is changed.' : 'The order is taken.',
      after: (orders) => {
        client.setQueryData(['orders'], orders)
        forgetForm(name)
        kept.forget()
        close()
      },
    },
  )
  return (
    <Modal
      open
      title={order ? `Change the order for ${order.customer}` : 'Take an order'}
      width={860}
      okText={order ? 'Keep it' : 'Take it'}
      onCancel={close}
      onOk={form.submit}
      confirmLoading={save.busy}
      okButtonProps={{ disabled: line.patternId !== undefined && !isWhole(line) }}
      style={{ top: 40 }}
    >
      <KeptForm<Fields>
        name={name}
        beside={kept}
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={save.run}
        initialValues={
          order
            ? {
                customer: { name: order.customer, id: order.customerId },
                worn: order.worn ?? undefined,
                measure: order.measureMm === null ? undefined : order.measureMm / 10,
                day: dayjs(order.wantedOn),
                price: order.price / 100,
                paid: order.paid / 100,
                promised: order.promised,
              }
            : { day: dayjs().add(28, 'day'), price: 0, paid: 0 }
        }
      >
        <div className="fields">
          <Form.Item
            label="For"
            name="customer"
            rules={[
              {
                validator: async (_, who?: Who) => {
                  if (!who?.name.trim()) throw new Error('Name the customer.')
                },
              },
            ]}
          >
            <CustomerField autoFocus onKnown={take} />
          </Form.Item>
          <Form.Item label="Wanted by" name="day" rules={[{ required: true, message: 'Give the day.' }]}>
            <DatePicker style={{ width: '100%' }} format="ddd, D MMM YYYY" allowClear={false} />
          </Form.Item>
          <Form.Item label={`Price, ${money.sign}`} name="price">
            <InputNumber style={{ width: '100%' }} min={0} step={0.5} />
          </Form.Item>
          <Form.Item label={`Paid so far, ${money.sign}`} name="paid">
            <InputNumber style={{ width: '100%' }} min={0} step={0.5} />
          </Form.Item>
        </div>
        {known && (known.allergies || known.leftHanded) && (
          <p className="notice" role="status">
            {known.allergies && <strong>Allergies: {known.allergies}. </strong>}
            {known.leftHanded && 'Left-handed: the written pattern can be for the left hand.'}
          </p>
        )}
        <LineForm line={line} change={setLine} remove={undefined} />
        <div className="hands" style={{ marginTop: 12, flexWrap: 'wrap' }}>
          <Form.Item name="worn" noStyle>
            <Select
              aria-label="Worn on"
              placeholder="Worn on"
              allowClear
              style={{ width: 130 }}
              options={['wrist', 'neck', 'finger'].map((value) => ({ value, label: value }))}
            />
          </Form.Item>
          <Form.Item name="measure" noStyle>
            <InputNumber aria-label="Measure, cm" min={1} max={300} step={0.5} suffix="cm" style={{ width: 130 }} />
          </Form.Item>
          {worn === 'wrist' && (
            <Select
              aria-label="How it sits"
              style={{ width: 250 }}
              value={ease}
              onChange={setEase}
              options={Object.entries(wristEase).map(([value, mm]) => ({
                value: value as WristEase,
                label: `${value}: ${mm} mm more than the wrist`,
              }))}
            />
          )}
          <Button
            onClick={() => {
              const { patternId, version } = line
              if (patternId && version && worn)
                size.run({ patternId, version, worn, measureMm: (measure ?? 0) * 10, ease })
            }}
            loading={size.busy}
            disabled={!worn || !measure || !line.patternId || !line.version}
          >
            Size it
          </Button>
          {line.size && <span>made {line.size}</span>}
        </div>
        <ErrorNotice error={size.refused} />
        {sized && (
          <ul className="figures" aria-label="Ways to size it">
            {sized.ways.map((way) => (
              <li key={way.size}>
                <Button
                  size="small"
                  type={way.size === line.size ? 'primary' : 'default'}
                  onClick={() => setLine({ ...line, size: way.size })}
                >
                  {way.size || 'its one size'}
                </Button>{' '}
                {way.made ? 'made to measure' : 'one of its sizes'}
                {way.finishedMm !== null && `: ${sayLength(way.finishedMm)} long, ${sayLength(sized.wantedMm)} wanted`}
                {way.trouble && <span className="trouble">: {way.trouble}</span>}
              </li>
            ))}
          </ul>
        )}
        <Form.Item label="What was promised" name="promised" style={{ marginTop: 12 }}>
          <Input.TextArea rows={2} maxLength={1000} />
        </Form.Item>
        <ErrorNotice error={save.refused} />
      </KeptForm>
    </Modal>
  )
}
