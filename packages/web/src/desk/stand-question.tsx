import { beadName } from '@tessellum/core/catalogue/bead'
import { fitStand, type StandFit, spreadIncreases } from '@tessellum/core/sizing/stand'
import { Form } from 'antd'
import { useMemo } from 'react'
import { FigureTable } from '../frame/figure-table'
import { NumberField } from '../frame/number-field'
import { Drawing } from '../piece/drawing'
import { useFormed } from '../piece/use-formed'
import { BeadSelect, beadIn } from './bead-select'
import { useBeadChoices } from './beads'
import styles from './desk.module.css'
import { UseInPattern } from './use-in-pattern'

const usual = { core: 12, bead: 'round 11/0', rows: 2 }
const threadMm = 0.15
const noChoices = {}

/** Beads on end round a ring, a pearl or a row: how many, the rows after, and which ring would fit round them. */
export function StandQuestion() {
  const choices = useBeadChoices()
  const [form] = Form.useForm<typeof usual>()
  const { core, bead: name, rows } = Form.useWatch([], form) ?? usual
  const bead = beadIn(choices, name)
  const found = useMemo(() => {
    if (!bead || !(core > 0) || !(rows >= 1)) return []
    const fits: StandFit[] = []
    let radius = core / 2
    for (let row = 0; row < Math.min(rows, 12); row++) {
      const fit = fitStand(radius, bead, threadMm)
      fits.push(fit)
      radius = fit.outerRadiusMm
    }
    return fits
  }, [bead, core, rows])
  const lines = bead
    ? [
        `bead A ${beadName(bead)}`,
        'part rays',
        `  stand A round ${core} mm`,
        ...Array.from({ length: Math.max(0, found.length - 1) }, () => '  stand row A'),
      ]
    : []
  const source = ['pattern Trial', ...lines].join('\n')
  const { scene } = useFormed(found.length > 0 ? source : undefined, noChoices)
  const last = found.at(-1)
  return (
    <div className={styles.desk}>
      <Form
        name="stand-question"
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={usual}
        className="sheet"
      >
        <Form.Item label="Core across, mm" name="core" rules={[{ required: true, message: 'Enter the core.' }]}>
          <NumberField min={2} max={200} className={styles.figure ?? ''} />
        </Form.Item>
        <BeadSelect label="Bead" name="bead" choices={choices} />
        <Form.Item label="Rows" name="rows">
          <NumberField min={1} max={12} precision={0} className={styles.figure ?? ''} />
        </Form.Item>
      </Form>
      <section className={`sheet ${styles.answer}`} aria-label="Answer">
        {found.length === 0 && <p className="quiet">Enter a core, a bead and a number of rows.</p>}
        {found.length > 0 && (
          <FigureTable>
            <thead>
              <tr>
                <th scope="col">Row</th>
                <th scope="col">Beads</th>
                <th scope="col">Left over</th>
                <th scope="col">Increases at</th>
                <th scope="col">Out to, across</th>
              </tr>
            </thead>
            <tbody>
              {found.map(({ count, gapMm, oneMore, outerRadiusMm }, i) => {
                const before = found[i - 1]?.count
                const at = before === undefined ? [] : spreadIncreases(before, count - before)
                return (
                  <tr key={i}>
                    <th scope="row">{i + 1}</th>
                    <td>
                      <strong>{count}</strong>
                      {oneMore && ` or ${count + 1}`}
                    </td>
                    <td>{gapMm.toFixed(2)} mm</td>
                    <td>{at.map((each) => each + 1).join(', ') || 'none'}</td>
                    <td>{(2 * outerRadiusMm).toFixed(1)} mm</td>
                  </tr>
                )
              })}
            </tbody>
          </FigureTable>
        )}
        {last && (
          <>
            <p className="figures">
              A ring lies round the last row when it is {(2 * (last.outerRadiusMm - 0.4)).toFixed(1)} to{' '}
              {(2 * (last.outerRadiusMm + 0.6)).toFixed(1)} mm across inside.
            </p>
            <div className={styles.drawings}>
              <Drawing scene={scene} colours={{ A: '#3c6e5d' }} label="The standing rows from the front" />
            </div>
            <UseInPattern lines={lines.map((line, i) => (i === 0 ? `# ${line}` : line))} />
          </>
        )}
      </section>
    </div>
  )
}
