import { useQuery } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { type Grade, measuresFrom, measuresOf } from '@tessellum/core/desk/grade'
import { sayLength } from '@tessellum/core/measure/units'
import type { Choices } from '@tessellum/core/report/reckon-pattern'
import { Button, Form, Input, Select } from 'antd'
import { useMemo, useState } from 'react'
import { Loading } from '../frame/loading'
import { bench } from './use-reckoned'

/** A pattern graded over a list of measures, in the size that is shown for all else. */
export function Grading({ pattern, choices }: { pattern: Pattern; choices: Choices }) {
  const names = useMemo(() => measuresOf(pattern.source), [pattern.source])
  const [asked, setAsked] = useState<{ name: string; values: readonly number[] }>()
  const { data, error, isFetching } = useQuery({
    queryKey: ['grade', pattern.id, pattern.revision, choices, asked],
    enabled: asked !== undefined,
    retry: false,
    queryFn: () => bench.grade(pattern.source, choices, asked?.name ?? '', asked?.values ?? []),
  })
  if (names.length === 0) return null
  const roles = [...new Set((data ?? []).flatMap(({ report }) => report.beads.map(({ role }) => role)))]
  return (
    <section className="sheet grading" aria-label="Grading">
      <div className="panel-head">
        <h2>Graded over more sizes</h2>
      </div>
      <Form
        layout="inline"
        requiredMark={false}
        initialValues={{ name: names[0], list: '10, 12, 14, 16, 18, 20 mm' }}
        onFinish={({ name, list }: { name: string; list: string }) => setAsked({ name, values: measuresFrom(list) })}
      >
        <Form.Item label="Measure" name="name">
          <Select style={{ width: 130 }} options={names.map((value) => ({ value, label: value }))} />
        </Form.Item>
        <Form.Item
          label="Over"
          name="list"
          rules={[
            {
              validator: async (_, list: string) => {
                if (measuresFrom(list).length === 0) throw new Error('Give the measures, for example: 12, 14, 16 mm.')
              },
            },
          ]}
        >
          <Input style={{ width: 300 }} />
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
        <table className="figures size-table makers">
          <thead>
            <tr>
              <th scope="col">{asked?.name}</th>
              {roles.map((role) => (
                <th key={role} scope="col">
                  {role}
                </th>
              ))}
              <th scope="col">Thread</th>
              <th scope="col">Rules</th>
            </tr>
          </thead>
          <tbody>
            {data.map((grade) => (
              <Row key={grade.valueMm} grade={grade} roles={roles} />
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}

function Row({ grade: { valueMm, report, breaks, nearestMm }, roles }: { grade: Grade; roles: readonly string[] }) {
  return (
    <tr>
      <th scope="row">{sayLength(valueMm)}</th>
      {roles.map((role) => (
        <td key={role}>{report.beads.find((bead) => bead.role === role)?.total ?? 0}</td>
      ))}
      <td>{sayLength(report.thread.totalMm)}</td>
      <td className={breaks ? 'trouble' : ''}>
        {breaks ?? 'keeps them'}
        {breaks && nearestMm !== undefined && <strong> {sayLength(nearestMm)} keeps them.</strong>}
      </td>
    </tr>
  )
}
