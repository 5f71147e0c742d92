import { useQuery } from '@tanstack/react-query'
import { type ItemStory, type Lot, transferLot, weighLot } from '@tessellum/contract/stock'
import { AutoComplete, Button, Form, Modal, Table } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { NumberField } from '../frame/number-field'
import { useMoney } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './lots.module.css'
import { Quantity } from './quantity-cell'

type LotAction = 'transfer' | 'weighing'

/** An item's lots, each where it lies, with what can be done with its tube. */
export function Lots({ item, mayMove }: { item: ItemStory; mayMove: boolean }) {
  const units = useUnits()
  const money = useMoney()
  const [doing, setDoing] = useState<{ readonly lot: Lot; readonly what: LotAction }>()
  const print = useIdempotentMutation((lotId: number) => call('POST /api/lots/:id/label', { params: { id: lotId } }), {
    said: 'The label is printed.',
  })
  return (
    <div className="rows">
      <Table
        rowKey="id"
        size="small"
        dataSource={item.lots}
        pagination={false}
        title={() => <h2>Lots</h2>}
        columns={[
          {
            title: 'Lot',
            key: 'lot',
            render: (_, lot) => (
              <>
                <strong>{lot.code}</strong>
                <span className={`quiet ${styles.under}`}>
                  {lot.place || 'no place'}, since {dayjs(lot.receivedOn).format('D MMM YYYY')}
                  {lot.mgPerBead !== null && `, ${lot.mgPerBead} mg a bead`}
                  {lot.unitCost !== null &&
                    `, ${money.say(lot.unitCost * units.recorded(1, item.unit))} per ${item.unit === 'piece' ? 'piece' : units.word[item.unit]}`}
                </span>
              </>
            ),
          },
          {
            title: 'Free',
            key: 'free',
            align: 'right',
            render: (_, lot) => <Quantity quantity={lot.onHand - lot.reserved} unit={item.unit} />,
          },
          {
            title: 'On hand',
            key: 'onHand',
            align: 'right',
            render: (_, lot) => (
              <>
                <Quantity quantity={lot.onHand} unit={item.unit} />
                {lot.inBags > 0 && (
                  <span className={`quiet ${styles.under}`}>
                    <Quantity quantity={lot.inBags} unit={item.unit} /> in bags
                  </span>
                )}
              </>
            ),
          },
          ...(mayMove
            ? [
                {
                  title: '',
                  key: 'do',
                  render: (_: unknown, lot: Lot) => (
                    <span className={styles.lot}>
                      <Do what="Move" lot={lot} run={() => setDoing({ lot, what: 'transfer' })} />
                      {item.unit === 'mg' && (
                        <Do what="Weigh" lot={lot} run={() => setDoing({ lot, what: 'weighing' })} />
                      )}
                      <Do
                        what="Label"
                        lot={lot}
                        run={() => print.run(lot.id)}
                        busy={print.busy && print.doing === lot.id}
                      />
                    </span>
                  ),
                },
              ]
            : []),
        ]}
      />
      {print.refused && (
        <div className="pad">
          <ErrorNotice error={print.refused} />
        </div>
      )}
      {doing?.what === 'transfer' && <Move item={item} lot={doing.lot} close={() => setDoing(undefined)} />}
      {doing?.what === 'weighing' && <Weigh item={item} lot={doing.lot} close={() => setDoing(undefined)} />}
    </div>
  )
}

const Do = ({ what, lot, run, busy = false }: { what: string; lot: Lot; run: () => void; busy?: boolean }) => (
  <Button
    size="small"
    type="link"
    onClick={run}
    loading={busy}
    aria-label={`${what}: lot ${[lot.code, lot.place].filter(Boolean).join(', ')}`}
  >
    {what}
  </Button>
)

interface AboutLot {
  readonly item: ItemStory
  readonly lot: Lot
  readonly close: () => void
}

/** To another place: so much of it, or the tube as a whole with its promises. */
function Move({ item, lot, close }: AboutLot) {
  const units = useUnits()
  const [form] = Form.useForm<{ place: string; amount: number | null }>()
  const { data: places } = useQuery(read.places)
  const move = useIdempotentMutation(
    ({ place, amount }: { place: string; amount?: number | null }) =>
      call('POST /api/lots/:id/transfer', {
        params: { id: lot.id },
        body: { place, ...(typeof amount === 'number' ? { quantity: units.recorded(amount, item.unit) } : {}) },
      }),
    { stale: ['stock', 'stocktakes'], said: 'Moved.', after: close },
  )
  return (
    <Modal
      open
      title={`Move lot ${lot.code}`}
      okText="Move it"
      onCancel={close}
      onOk={form.submit}
      confirmLoading={move.busy}
    >
      <Form name="move-lot" form={form} layout="vertical" requiredMark={false} onFinish={move.run}>
        <p className="quiet">It lies in {lot.place || 'no place'}.</p>
        <Form.Item label="To" name="place" rules={rulesOf(transferLot.shape.place)}>
          <AutoComplete
            options={(places ?? []).map(({ place }) => ({ value: place }))}
            showSearch={{ filterOption: true }}
            autoFocus
          />
        </Form.Item>
        <Form.Item
          label={`How much, ${units.word[item.unit]}: the whole tube when left empty`}
          name="amount"
          rules={rulesOf(transferLot.shape.quantity, (typed) => units.recorded(Number(typed), item.unit))}
        >
          <NumberField className={styles.figure ?? ''} />
        </Form.Item>
        <ErrorNotice error={move.refused} />
      </Form>
    </Modal>
  )
}

/** What a bead of this lot weighs, from some on the scale. */
function Weigh({ item, lot, close }: AboutLot) {
  const [form] = Form.useForm<{ beads: number; grams: number }>()
  const beads = Form.useWatch('beads', form)
  const grams = Form.useWatch('grams', form)
  const weigh = useIdempotentMutation(
    (fields: { beads: number; grams: number }) =>
      call('POST /api/lots/:id/weighing', {
        params: { id: lot.id },
        body: { beads: fields.beads, mg: fields.grams * 1000 },
      }),
    { stale: ['stock', 'batches'], said: 'New bead weight saved.', after: close },
  )
  const nominal = item.bead?.massMg
  return (
    <Modal
      open
      title={`Weigh beads of lot ${lot.code}`}
      okText="Use this weight"
      onCancel={close}
      onOk={form.submit}
      confirmLoading={weigh.busy}
    >
      <Form
        name="weigh-lot"
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={weigh.run}
        initialValues={{ beads: 100 }}
      >
        <Form.Item label="Beads on the scale" name="beads" rules={rulesOf(weighLot.shape.beads)}>
          <NumberField autoFocus />
        </Form.Item>
        <Form.Item
          label="Their weight, g"
          name="grams"
          rules={rulesOf(weighLot.shape.mg, (grams) => Number(grams) * 1000)}
        >
          <NumberField step={0.01} />
        </Form.Item>
        {beads > 0 && grams > 0 && (
          <p className="figures" role="status">
            <strong>{((grams * 1000) / beads).toFixed(2)} mg</strong> a bead
            {nominal ? `; ${nominal} mg are usual for it` : ''}
          </p>
        )}
        <ErrorNotice error={weigh.refused} />
      </Form>
    </Modal>
  )
}
