import { useQuery } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { sparesOf } from '@tessellum/contract/usual-settings'
import { type Grade, measuresFrom, measuresOf } from '@tessellum/core/desk/grade'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import { billOf, type KitItem } from '@tessellum/core/kit/bill'
import { costOfKit } from '@tessellum/core/kit/cost'
import { sayExtents } from '@tessellum/core/report/form-report'
import { Button, Form, Input, Select } from 'antd'
import { useMemo, useState } from 'react'
import { computed, type MeasuresAsked } from '../computed'
import { FigureTable } from '../frame/figure-table'
import { Loading } from '../frame/loading'
import { useMoney, useShopSettings } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'
import styles from './grading.module.css'

interface GradingProps {
  readonly pattern: Pattern
  readonly choices: Choices
  readonly kit: Readonly<Record<string, KitItem>>
}

/** A pattern graded over a list of measures, in the size that is shown for all else. */
export function Grading({ pattern, choices, kit }: GradingProps) {
  const names = useMemo(() => measuresOf(pattern.source), [pattern.source])
  const [asked, setAsked] = useState<MeasuresAsked>()
  const { data, error, isFetching } = useQuery(computed.graded(pattern.source, choices, asked))
  if (names.length === 0) return null
  const roles = [...new Set((data ?? []).flatMap(({ report }) => report.beads.map(({ role }) => role)))]
  return (
    <section className={`sheet ${styles.grading}`} aria-label="Grading">
      <div className="panel-head">
        <h2>Graded over more sizes</h2>
      </div>
      <Form
        name="grading"
        layout="inline"
        requiredMark={false}
        initialValues={{ name: names[0], list: '10, 12, 14, 16, 18, 20 mm' }}
        onFinish={({ name, list }: { name: string; list: string }) => setAsked({ name, values: measuresFrom(list) })}
      >
        <Form.Item label="Measure" name="name">
          <Select className={styles.choice ?? ''} options={names.map((value) => ({ value, label: value }))} />
        </Form.Item>
        <Form.Item
          label="Over"
          name="list"
          rules={[
            {
              // What is no number is named by the error that is thrown.
              validator: async (_, list: string) => {
                if (measuresFrom(list).length === 0) throw new Error('Give the measures, for example: 12, 14, 16 mm.')
              },
            },
          ]}
        >
          <Input className={styles.field ?? ''} />
        </Form.Item>
        <Button htmlType="submit">Grade</Button>
      </Form>
      {isFetching && <Loading what="Grading" />}
      {error && (
        <p className="notice trouble" role="alert">
          {error.message}
        </p>
      )}
      {data && !isFetching && (
        <FigureTable words top>
          <thead>
            <tr>
              <th scope="col">{asked?.name}</th>
              {roles.map((role) => (
                <th key={role} scope="col">
                  {role}
                </th>
              ))}
              <th scope="col">Thread</th>
              <th scope="col">Finished</th>
              <th scope="col">Cost without stones</th>
              <th scope="col">Rules</th>
            </tr>
          </thead>
          <tbody>
            {data.map((grade) => (
              <Row key={grade.valueMm} grade={grade} roles={roles} kit={kit} />
            ))}
          </tbody>
        </FigureTable>
      )}
    </section>
  )
}

interface RowProps {
  readonly grade: Grade
  readonly roles: readonly string[]
  readonly kit: Readonly<Record<string, KitItem>>
}

function Row({ grade: { valueMm, report, finished, breaks, nearestMm }, roles, kit }: RowProps) {
  const units = useUnits()
  // A stone of another size is another item, which the colourway may not have.
  const money = useMoney()
  const { lines } = billOf({ ...report, stones: [] }, kit, sparesOf(useShopSettings()))
  const { cost: known, unpriced } = costOfKit(
    lines,
    new Map(Object.values(kit).map(({ id, unitCost }) => [id, unitCost] as const)),
  )
  const cost = lines.length > 0 && unpriced.length === 0 ? known : undefined
  return (
    <tr>
      <th scope="row">{units.length(valueMm)}</th>
      {roles.map((role) => (
        <td key={role}>{report.beads.find((bead) => bead.role === role)?.total ?? 0}</td>
      ))}
      <td>{units.thread(report.thread.totalMm)}</td>
      <td>{finished ? sayExtents(finished, units.system) : <span className="quiet">form not sound</span>}</td>
      <td>{cost === undefined ? <span className="quiet">no prices</span> : money.say(cost)}</td>
      <td className={breaks ? 'trouble' : ''}>
        {breaks ?? 'keeps them'}
        {breaks && nearestMm !== undefined && <strong> {units.length(nearestMm)} keeps them.</strong>}
      </td>
    </tr>
  )
}
