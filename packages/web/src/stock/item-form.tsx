import { type ItemStory, packs, saveItem } from '@tessellum/contract/stock'
import type { SpokenUnits } from '@tessellum/core/stock/spoken-units'
import { AutoComplete, Button, ColorPicker, Form, Input, Modal, Select } from 'antd'
import { useNavigate } from 'react-router'
import { asMoney, rulesOf } from '../frame/contract-rules'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { NumberField } from '../frame/number-field'
import { useMoney } from '../settings/use-shop-settings'
import { keptIn, useUnits } from '../settings/use-units'
import { call, ShopError } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './item-form.module.css'

type Unit = 'mg' | 'piece' | 'mm'

interface Fields {
  readonly code: string
  readonly category: 'bead' | 'stone' | 'thread' | 'other'
  readonly maker: string
  readonly kind: string
  readonly size: string
  readonly colourCode: string
  readonly colourName: string
  readonly finish: string
  readonly colour: string | { toHexString(): string }
  readonly unit: Unit
  readonly place: string
  readonly reorderBelow: number | null
  readonly barcode: string
  readonly cautions: string
  readonly lengthMm: number | null
  readonly acrossMm: number | null
  readonly boreMm: number | null
  readonly massMg: number | null
  readonly bores: 1 | 2
  /** In the unit that people speak in, and in whole money. */
  readonly packs: readonly { readonly amount: number; readonly price: number; readonly leadDays: number }[]
}

const usualKinds = ['cylinder', 'round', 'bugle', 'cube', 'faceted round', 'drop', 'two-hole lens']
const usualUnit: Readonly<Record<Fields['category'], Unit>> = {
  bead: 'mg',
  stone: 'piece',
  thread: 'mm',
  other: 'piece',
}

/** Begins an item, or changes what is kept of one. */
export function ItemForm({ item, close }: { item?: ItemStory; close: () => void }) {
  const units = useUnits()
  const money = useMoney()
  const navigate = useNavigate()
  const name = keptIn(units, `item-${item?.id ?? 'new'}`)
  const [form] = Form.useForm<Fields>()
  const unit = Form.useWatch('unit', form) ?? item?.unit ?? 'mg'
  const category = Form.useWatch('category', form) ?? item?.category ?? 'bead'
  const save = useIdempotentMutation(
    (fields: Fields) => {
      const read = saveItem.safeParse(asInput(fields, item?.bead?.contact ?? 2.5, units))
      if (!read.success) {
        const [issue] = read.error.issues
        throw new ShopError({
          code: 'bad-input',
          message: issue?.message ?? 'Something is missing.',
          path: issue?.path.join('.'),
        })
      }
      return item
        ? call('PUT /api/items/:id', { params: { id: item.id }, body: read.data })
        : call('POST /api/items', { body: read.data })
    },
    {
      stale: ['stock', 'buy-list'],
      said: ({ colourName }) => `${colourName} saved.`,
      after: ({ id }) => {
        forgetForm(name)
        close()
        if (!item) void navigate(`/stock/${id}`)
      },
    },
  )
  return (
    <Modal
      open
      title={item ? `Change ${item.colourName}` : 'New item'}
      width={760}
      okText="Save"
      onCancel={close}
      onOk={form.submit}
      confirmLoading={save.busy}
      className={styles.dialog ?? ''}
    >
      <KeptForm<Fields>
        name={name}
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={save.run}
        initialValues={initialOf(item, units)}
        onValuesChange={(changed: Partial<Fields>) => {
          if (changed.category && !item) form.setFieldsValue({ unit: usualUnit[changed.category] })
        }}
      >
        <div className="fields">
          <Form.Item label="Code" name="code" rules={rulesOf(saveItem.shape.code)}>
            <Input autoFocus={!item} maxLength={40} />
          </Form.Item>
          <Form.Item label="What it is" name="category">
            <Select
              options={[
                { value: 'bead', label: 'bead' },
                { value: 'stone', label: 'stone' },
                { value: 'thread', label: 'thread' },
                { value: 'other', label: 'something else' },
              ]}
            />
          </Form.Item>
          <Form.Item label="Kept in" name="unit">
            <Select
              options={(['mg', 'piece', 'mm'] as const).map((value) => ({
                value,
                label: { mg: `weight, ${units.word.mg}`, piece: 'pieces', mm: `length, ${units.word.mm}` }[value],
              }))}
            />
          </Form.Item>
          <Form.Item label="Maker" name="maker" rules={rulesOf(saveItem.shape.maker)}>
            <Input maxLength={80} />
          </Form.Item>
          <Form.Item label="Kind" name="kind" rules={rulesOf(saveItem.shape.kind)}>
            <AutoComplete options={category === 'bead' ? usualKinds.map((value) => ({ value })) : []} />
          </Form.Item>
          <Form.Item label="Size" name="size">
            <Input maxLength={40} placeholder="11/0" />
          </Form.Item>
          <Form.Item label="Colour" name="colourName" rules={rulesOf(saveItem.shape.colourName)}>
            <Input maxLength={80} />
          </Form.Item>
          <Form.Item label="Its code" name="colourCode">
            <Input maxLength={40} />
          </Form.Item>
          <Form.Item label="Finish" name="finish">
            <Input maxLength={60} placeholder="opaque matte" />
          </Form.Item>
          <Form.Item
            label="Looks like"
            name="colour"
            getValueFromEvent={(colour: { toHexString(): string }) => colour.toHexString()}
          >
            <ColorPicker showText disabledAlpha />
          </Form.Item>
          <Form.Item label="Place" name="place">
            <Input maxLength={60} />
          </Form.Item>
          <Form.Item label={`Reorder below, ${units.word[unit]}`} name="reorderBelow">
            <NumberField min={0} />
          </Form.Item>
          <Form.Item label="Barcode on its tubes" name="barcode">
            <Input maxLength={60} />
          </Form.Item>
          <Form.Item label="Cautions" name="cautions" className={styles.across ?? ''}>
            <Input maxLength={200} placeholder="contains nickel" />
          </Form.Item>
        </div>
        {category === 'bead' && (
          <div className={`fields ${styles.five}`}>
            <Form.Item label="Long, mm" name="lengthMm" rules={rulesOf(figures.lengthMm)}>
              <NumberField step={0.1} />
            </Form.Item>
            <Form.Item label="Across, mm" name="acrossMm" rules={rulesOf(figures.acrossMm)}>
              <NumberField step={0.1} />
            </Form.Item>
            <Form.Item label="Hole, mm" name="boreMm" rules={rulesOf(figures.boreMm)}>
              <NumberField step={0.1} />
            </Form.Item>
            <Form.Item label="One weighs, mg" name="massMg" rules={rulesOf(figures.massMg)}>
              <NumberField step={0.1} />
            </Form.Item>
            <Form.Item label="Holes" name="bores">
              <Select options={[{ value: 1 }, { value: 2 }]} />
            </Form.Item>
          </div>
        )}
        <Form.List name="packs">
          {(packs, { add, remove }) => (
            <>
              <p className="quiet">Bought in</p>
              {packs.map(({ key, name }) => (
                <div className="hands" key={key}>
                  <Form.Item
                    name={[name, 'amount']}
                    rules={rulesOf(pack.amount, (typed) => units.recorded(Number(typed), unit))}
                  >
                    <NumberField aria-label="Pack holds" suffix={units.word[unit]} className={styles.pack ?? ''} />
                  </Form.Item>
                  <Form.Item name={[name, 'price']} rules={rulesOf(pack.price, asMoney)}>
                    <NumberField aria-label="Pack costs" step={0.1} prefix={money.sign} className={styles.pack ?? ''} />
                  </Form.Item>
                  <Form.Item name={[name, 'leadDays']} rules={rulesOf(pack.leadDays)}>
                    <NumberField aria-label="Pack comes in" suffix="days" className={styles.pack ?? ''} />
                  </Form.Item>
                  <Button onClick={() => remove(name)}>Take away</Button>
                </div>
              ))}
              <Button onClick={() => add({ leadDays: 7 })}>Another pack</Button>
            </>
          )}
        </Form.List>
        <div className={styles.below}>
          <ErrorNotice error={save.refused} />
        </div>
      </KeptForm>
    </Modal>
  )
}

const figures = saveItem.shape.figures.unwrap().unwrap().shape
const pack = packs.element.shape

function initialOf(item: ItemStory | undefined, units: SpokenUnits): Partial<Fields> {
  if (!item) return { category: 'bead', unit: 'mg', colour: '#7d8f86', bores: 1, packs: [], reorderBelow: 0 }
  const { bead, packs, category, barcode, unit, reorderBelow, ...rest } = item
  return {
    ...rest,
    unit,
    category: category === 'kit' ? 'other' : category,
    barcode: barcode ?? '',
    reorderBelow: units.typed(reorderBelow, unit),
    ...(bead
      ? {
          lengthMm: bead.lengthMm,
          acrossMm: bead.acrossMm,
          boreMm: bead.boreMm,
          massMg: bead.massMg,
          bores: bead.bores,
        }
      : {}),
    packs: packs.map(({ amount, price, leadDays }) => ({
      amount: units.typed(amount, unit),
      price: price / 100,
      leadDays,
    })),
  }
}

const asInput = (
  { lengthMm, acrossMm, boreMm, massMg, bores, colour, packs, ...rest }: Fields,
  contact: number,
  units: SpokenUnits,
) => ({
  ...rest,
  size: rest.size ?? '',
  colour: typeof colour === 'string' ? colour : colour.toHexString().slice(0, 7).toLowerCase(),
  barcode: rest.barcode?.trim() || null,
  reorderBelow: units.recorded(rest.reorderBelow ?? 0, rest.unit),
  figures: rest.category === 'bead' ? { lengthMm, acrossMm, boreMm, massMg, bores, contact } : null,
  packs: (packs ?? []).map(({ amount, price, leadDays }) => ({
    amount: units.recorded(amount, rest.unit),
    price: Math.round(price * 100),
    leadDays,
  })),
})
