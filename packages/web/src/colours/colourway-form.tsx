import { useQuery } from '@tanstack/react-query'
import { type Choice, type Colourway, type SaveColourway, saveColourway } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Item } from '@tessellum/contract/stock'
import type { StoneShape } from '@tessellum/core/catalogue/stone'
import { labelledStone, sayStone, stoneServes } from '@tessellum/core/catalogue/stone-size'
import { stonesDeclared } from '@tessellum/core/evaluate/evaluate-pattern'
import { threadRole } from '@tessellum/core/kit/bill'
import type { Report } from '@tessellum/core/report/report'
import { Form, Input, Modal, Select } from 'antd'
import { useMemo } from 'react'
import { rulesOf } from '../frame/contract-rules'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { ItemOption } from '../stock/item-option'
import styles from './colours.module.css'

interface Fields {
  name: string
  chosen: Record<string, number | undefined>
  /** What may stand in, nearest first. */
  others: Record<string, number[] | undefined>
}

interface ColourwayFormProps {
  readonly pattern: Pattern
  readonly colourway: Colourway | undefined
  readonly roles: readonly string[]
  readonly report: Report
  readonly close: () => void
}

/** One field of the form: a role, for every size or for one. */
interface Slot {
  readonly role: string
  readonly size: string
  readonly label: string
}

/** A stone is another item in each size; beads and thread are the same in all. */
const slotsOf = (roles: readonly string[], report: Report): Slot[] =>
  roles.flatMap((role) => {
    const stone = report.stones.some((each) => each.role === role)
    if (stone && report.sizes.length > 1) return report.sizes.map((size) => ({ role, size, label: `${role}, ${size}` }))
    const bead = report.beads.find((each) => each.role === role)
    return [
      { role, size: '', label: role === threadRole ? 'Thread' : `${role}${bead?.label ? `, ${bead.label}` : ''}` },
    ]
  })

/** The outline of a role's stone in a size; undefined for what is no stone. */
type Stones = (role: string, size: string) => StoneShape | undefined

function useStones(source: string, report: Report): Stones {
  const bySize = useMemo(
    () => new Map(['', ...report.sizes].map((size) => [size, stonesDeclared(source, size)])),
    [source, report.sizes],
  )
  return (role, size) => bySize.get(size)?.get(role)?.outline
}

const nothingFor = ({ role, size }: Slot, stones: Stones) => {
  const wanted = stones(role, size)
  return wanted ? `Nothing on the shelf is ${sayStone(wanted)}.` : 'Nothing like that is on the shelf.'
}

const keyOf = ({ role, size }: { role: string; size: string }) => `${role}|${size}`

/** Gives each role an item from the shelf. */
export function ColourwayForm({ pattern, colourway, roles, report, close }: ColourwayFormProps) {
  const units = useUnits()
  const { data: items } = useQuery(read.items)
  const [form] = Form.useForm<Fields>()
  const formName = colourway ? `colourway-${colourway.id}` : `colourway-new-${pattern.id}`
  const slots = slotsOf(roles, report)
  const stones = useStones(pattern.source, report)
  const save = useIdempotentMutation(
    (body: SaveColourway) =>
      colourway
        ? call('PUT /api/colourways/:id', { params: { id: colourway.id }, body })
        : call('POST /api/patterns/:id/colourways', { params: { id: pattern.id }, body }),
    {
      stale: ['colourways'],
      said: ({ name }) => `${name} is saved.`,
      after: () => {
        forgetForm(formName)
        close()
      },
    },
  )
  const choicesOf = ({ chosen, others }: Fields): Choice[] =>
    slots.flatMap((slot) => {
      const itemId = chosen[keyOf(slot)]
      // The same bead goes on being counted as it was.
      if (itemId === undefined) return []
      const substitutes = (others?.[keyOf(slot)] ?? []).filter((other) => other !== itemId)
      return [itemId, ...substitutes].map((id, rank) => {
        const before = colourway?.choices.find((choice) => keyOf(choice) === keyOf(slot) && choice.itemId === id)
        return { role: slot.role, size: slot.size, itemId: id, counting: before?.counting ?? 'all', rank }
      })
    })
  const { refused } = save
  const kept = colourway?.choices ?? []
  const initial = Object.fromEntries(
    kept.filter(({ rank }) => rank === 0).map((choice) => [keyOf(choice), choice.itemId]),
  )
  const initialOthers = Object.fromEntries(
    slots.map((slot) => [
      keyOf(slot),
      kept.filter((choice) => choice.rank > 0 && keyOf(choice) === keyOf(slot)).map(({ itemId }) => itemId),
    ]),
  )
  return (
    <Modal
      open
      title={colourway ? `Change ${colourway.name}` : 'New colourway'}
      width={720}
      okText="Save colourway"
      onCancel={close}
      onOk={form.submit}
      confirmLoading={save.busy}
      className={styles.dialog ?? ''}
    >
      <KeptForm<Fields>
        name={formName}
        form={form}
        onFinish={(fields) => save.run({ name: fields.name, choices: choicesOf(fields) })}
        initialValues={{ name: colourway?.name ?? '', chosen: initial, others: initialOthers }}
        requiredMark={false}
        layout="vertical"
      >
        {colourway && (
          <p className="quiet">
            Batches that are planned keep version {colourway.version}; new ones take what is saved here.
          </p>
        )}
        <Form.Item label="Name" name="name" rules={rulesOf(saveColourway.shape.name)}>
          <Input autoFocus={!colourway} />
        </Form.Item>
        {slots.map((slot) => (
          <div className={styles.choiceRow} key={keyOf(slot)}>
            <label htmlFor={`chosen_${keyOf(slot)}`}>
              <strong>{slot.label}</strong>
            </label>
            <Form.Item name={['chosen', keyOf(slot)]} noStyle>
              <Select
                id={`chosen_${keyOf(slot)}`}
                aria-label={slot.label}
                allowClear
                placeholder="Choose from the shelf"
                showSearch={{ optionFilterProp: 'text' }}
                options={optionsFor(slot, items ?? [], report, stones)}
                notFoundContent={nothingFor(slot, stones)}
                popupMatchSelectWidth={560}
                optionRender={({ data }) => <ItemOption item={data.item} units={units} />}
                labelRender={({ value }) => {
                  const item = items?.find((each) => each.id === value)
                  return item ? <ItemOption item={item} units={units} chosen /> : String(value)
                }}
              />
            </Form.Item>
            <Form.Item name={['others', keyOf(slot)]} noStyle>
              <Select
                mode="multiple"
                maxCount={3}
                aria-label={`Instead, where the shelf is short of ${slot.role}`}
                placeholder="if that is short"
                showSearch={{ optionFilterProp: 'text' }}
                options={optionsFor(slot, items ?? [], report, stones)}
                popupMatchSelectWidth={560}
                optionRender={({ data }) => <ItemOption item={data.item} units={units} />}
                labelRender={({ value }) => items?.find((each) => each.id === value)?.colourName ?? String(value)}
              />
            </Form.Item>
          </div>
        ))}
        {refused && (
          <div role="alert" className={`notice trouble ${styles.below}`}>
            {refused.message} {refused.hint}
          </div>
        )}
      </KeptForm>
    </Modal>
  )
}

/** Items of the role's own sort; beads of its kind and size first, and of stones only those that fit. */
function optionsFor({ role, size }: Slot, items: readonly Item[], report: Report, stones: Stones) {
  const wanted = stones(role, size)
  const bead = report.beads.find((each) => each.role === role)
  const category = role === threadRole ? 'thread' : bead ? 'bead' : 'stone'
  const near = (item: Item) => (bead && item.kind === bead.kind && item.size === bead.size ? 0 : 1)
  return items
    .filter((item) => {
      if (item.category !== category) return false
      const stone = wanted && labelledStone(item.kind, item.size)
      return !wanted || !stone || stoneServes(wanted, stone)
    })
    .sort((a, b) => near(a) - near(b))
    .map((item) => ({
      value: item.id,
      item,
      text: `${item.colourName} ${item.colourCode} ${item.kind} ${item.size} ${item.maker}`,
    }))
}
