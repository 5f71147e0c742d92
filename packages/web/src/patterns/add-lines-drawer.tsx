import { useQuery } from '@tanstack/react-query'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import type { View } from '@tessellum/core/drawing/view'
import { type Field, type LineForm, lineForms } from '@tessellum/core/notation/line-forms'
import { Button, Drawer, Form, Select } from 'antd'
import { memo, useState } from 'react'
import { computed } from '../computed'
import { NumberField } from '../frame/number-field'
import type { OpenDialog } from '../frame/use-dialog'
import { FlatPiece } from '../piece/flat-piece'
import styles from './add-lines.module.css'
import { NotationLines } from './notation-lines'

export interface LinesToAdd {
  /** Letters that the pattern has. */
  readonly beads: readonly string[]
  readonly stones: readonly string[]
  readonly add: (lines: readonly string[]) => void
}

const colours = { ...roleColours(['A', 'B', 'C']), C: '#d0a648' }

/** A line is chosen by a drawing, asked for a few numbers, and written into the ledger. */
export const AddLinesDrawer = memo(function AddLinesDrawer({
  beads,
  stones,
  add,
  open,
  close,
}: LinesToAdd & OpenDialog) {
  const [chosen, setChosen] = useState<LineForm>()
  // They help to choose; the words beside them say as much.
  const { data: sketches = [] } = useQuery({
    ...computed.sketches(lineForms.map(({ sketch }) => sketch)),
    enabled: open,
  })
  const leave = () => {
    close()
    setChosen(undefined)
  }
  return (
    <Drawer open={open} onClose={leave} title={chosen ? chosen.name : 'Add a line'} size={520} placement="left">
      {chosen ? (
        <LineFormFields
          key={chosen.name}
          form={chosen}
          beads={beads}
          stones={stones}
          back={() => setChosen(undefined)}
          add={(lines) => {
            add(lines)
            leave()
          }}
        />
      ) : (
        <div className={styles.forms}>
          {lineForms.map((form, i) => (
            <button key={form.name} type="button" onClick={() => setChosen(form)}>
              <span className={styles.sketch}>
                {sketches[i] && <FlatPiece view={sketches[i] as View} colours={colours} label="" />}
              </span>
              <strong>{form.name}</strong>
              <span className="quiet">{form.about}</span>
            </button>
          ))}
        </div>
      )}
    </Drawer>
  )
})

interface FieldsProps extends LinesToAdd {
  readonly form: LineForm
  readonly back: () => void
}

type Values = Readonly<Record<string, string | number>>

function LineFormFields({ form, beads, stones, back, add }: FieldsProps) {
  const [fields] = Form.useForm<Values>()
  const values = Form.useWatch([], fields) as Values | undefined
  const needsStone = form.fields.some(({ kind }) => kind === 'stone')
  const missing =
    beads.length === 0 && form.fields.some(({ kind }) => kind === 'bead')
      ? 'Declare a bead first, for example: bead A cylinder 11/0.'
      : needsStone && stones.length === 0
        ? 'Declare a stone first, for example: stone S round 14 mm, height 4 mm.'
        : undefined
  const whole = values && form.fields.every(({ name }) => values[name] !== undefined && values[name] !== null)
  const asked = form.fields.filter(({ kind }) => kind === 'bead')
  const usual = Object.fromEntries(
    form.fields.map((field) => [field.name, usualFor(field, asked.indexOf(field), beads, stones)]),
  )
  return (
    <Form
      name="add-lines"
      form={fields}
      layout="vertical"
      requiredMark={false}
      initialValues={usual}
      onFinish={(given: Values) => add(form.lines(given))}
    >
      <p className="quiet">{form.about}</p>
      {missing && (
        <p className="notice" role="alert">
          {missing}
        </p>
      )}
      {form.fields.map((field) => (
        <Form.Item
          key={field.name}
          label={field.label}
          name={field.name}
          rules={[{ required: true, message: `${field.label}: choose or give it.` }]}
        >
          {field.kind === 'bead' || field.kind === 'stone' ? (
            <Select
              className={styles.choice ?? ''}
              options={(field.kind === 'bead' ? beads : stones).map((letter) => ({ value: letter, label: letter }))}
            />
          ) : field.kind === 'count' ? (
            <NumberField min={field.least} max={field.most} precision={0} className={styles.choice ?? ''} />
          ) : (
            <NumberField min={0.5} max={2000} className={styles.choice ?? ''} />
          )}
        </Form.Item>
      ))}
      <p className="quiet">It will be written as</p>
      <NotationLines lines={whole ? form.lines(values) : []} />
      <div className="hands">
        <Button onClick={back}>Another</Button>
        <Button type="primary" htmlType="submit" disabled={missing !== undefined}>
          Write it into the ledger
        </Button>
      </div>
    </Form>
  )
}

/** The first bead for the first that is asked for, the next for the next: what is meant more often than not. */
const usualFor = (field: Field, i: number, beads: readonly string[], stones: readonly string[]) =>
  'usual' in field ? field.usual : field.kind === 'bead' ? beads[Math.min(i, beads.length - 1)] : stones[0]
