import type { Bead } from '@tessellum/core/catalogue/bead'
import { sayPercent } from '@tessellum/core/measure/units'
import { coverRun } from '@tessellum/core/sizing/cover-run'
import { Form } from 'antd'
import { FigureTable, meantRow } from '../frame/figure-table'
import { NumberField } from '../frame/number-field'
import { BeadSelect, beadIn } from './bead-select'
import { useBeadChoices } from './beads'
import styles from './desk.module.css'

const usual = { of: 'round 15/0', count: 5, by: 'round 11/0' }

/** How many of one bead cover a run of another, and what is left over. */
export function RunQuestion() {
  const choices = useBeadChoices()
  const [form] = Form.useForm<typeof usual>()
  const { of, count, by } = Form.useWatch([], form) ?? usual
  const [under, over] = [beadIn(choices, of), beadIn(choices, by)]
  return (
    <div className={styles.desk}>
      <Form
        name="run-question"
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={usual}
        className="sheet"
      >
        <Form.Item label="How many in the run" name="count">
          <NumberField min={1} max={500} precision={0} className={styles.figure ?? ''} />
        </Form.Item>
        <BeadSelect label="Bead of the run" name="of" choices={choices} />
        <BeadSelect label="Bead that covers it" name="by" choices={choices} />
      </Form>
      <section className={`sheet ${styles.answer}`} aria-label="Answer" aria-live="polite">
        {under && over && count >= 1 ? (
          <Cover under={under} over={over} count={count} />
        ) : (
          <p className="quiet">Choose both beads.</p>
        )}
      </section>
    </div>
  )
}

function Cover({ under, over, count }: { under: Bead; over: Bead; count: number }) {
  const { runMm, candidates, best } = coverRun(under, count, over)
  return (
    <>
      <p className="figures">
        {count} of it are {runMm.toFixed(1)} mm long.
      </p>
      <CoverDrawing under={under} count={count} over={over} best={best} />
      <FigureTable>
        <thead>
          <tr>
            <th scope="col">Beads over it</th>
            <th scope="col">Misfit</th>
            <th scope="col">Of the run</th>
          </tr>
        </thead>
        <tbody>
          {candidates.map(({ count: n, misfitMm }) => (
            <tr key={n} className={n === best ? meantRow : ''}>
              <th scope="row">
                {n}
                {n === best && ', the best'}
              </th>
              <td>
                {misfitMm >= 0 ? '+' : '-'}
                {Math.abs(misfitMm).toFixed(2)} mm
              </td>
              <td>{sayPercent(misfitMm / runMm)}</td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
    </>
  )
}

/** The run below, the beads that cover it above, to one scale. */
function CoverDrawing({ under, count, over, best }: { under: Bead; count: number; over: Bead; best: number }) {
  const gap = 0.6
  const wide = Math.max(count * under.lengthMm, best * over.lengthMm)
  const high = under.acrossMm + over.acrossMm + gap
  const row = (bead: Bead, n: number, y: number, fill: string) =>
    Array.from({ length: n }, (_, i) => (
      <rect
        key={`${fill}${i}`}
        x={(wide - n * bead.lengthMm) / 2 + i * bead.lengthMm}
        y={y}
        width={bead.lengthMm}
        height={bead.acrossMm}
        rx={bead.contact <= 2.5 ? bead.lengthMm * 0.4 : bead.lengthMm * 0.1}
        fill={fill}
        stroke="#26332d"
        strokeWidth={0.08}
      />
    ))
  return (
    <div className={`${styles.drawings} ${styles.low}`}>
      <svg
        viewBox={`-1 -1 ${wide + 2} ${high + 2}`}
        role="img"
        aria-label={`${best} beads over a run of ${count}, to scale`}
      >
        {row(over, best, 0, '#d1a64a')}
        {row(under, count, over.acrossMm + gap, '#3c6e5d')}
      </svg>
    </div>
  )
}
