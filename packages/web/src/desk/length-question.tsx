import { wristEaseOf } from '@tessellum/contract/usual-settings'
import { type Worn, type WristEase, wornLength } from '@tessellum/core/desk/wearer'
import { fitLength, type RepeatFit } from '@tessellum/core/sizing/repeats'
import { Form, Segmented } from 'antd'
import { FigureTable, meantRow } from '../frame/figure-table'
import { NumberField } from '../frame/number-field'
import { MeasureField } from '../settings/measure-field'
import { useShopSettings } from '../settings/use-shop-settings'
import styles from './desk.module.css'
import { UseInPattern } from './use-in-pattern'

const usual = {
  worn: 'wrist' as Worn,
  measure: 165,
  ease: 'usual' as WristEase,
  thickness: 0,
  pitch: 8.4,
  ends: 25,
  multiple: 1,
}

/** Repeats for a wrist, a neck or a finger, with its ease, its clasp and its rules. */
export function LengthQuestion() {
  const [form] = Form.useForm<typeof usual>()
  const asked = Form.useWatch([], form) ?? usual
  const eases = wristEaseOf(useShopSettings())
  const answer = answerTo(asked, eases)
  const number = (label: string, name: keyof typeof usual, least: number, step?: number) => (
    <Form.Item label={label} name={name} rules={[{ required: true, message: `${label}: give it.` }]}>
      <NumberField min={least} className={styles.figure ?? ''} {...(step ? { step } : {})} />
    </Form.Item>
  )
  return (
    <div className={styles.desk}>
      <Form
        name="length-question"
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={usual}
        className="sheet"
      >
        <Form.Item label="Worn on" name="worn">
          <Segmented options={['wrist', 'neck', 'finger']} />
        </Form.Item>
        <Form.Item
          label={{ finger: 'Finger', neck: 'As worn', wrist: 'Wrist' }[asked.worn]}
          name="measure"
          rules={[{ required: true, message: 'Enter the measure.' }]}
        >
          <MeasureField worn={asked.worn} width={140} />
        </Form.Item>
        {asked.worn === 'wrist' && (
          <Form.Item label="How it sits" name="ease">
            <Segmented options={Object.entries(eases).map(([value, mm]) => ({ value, label: `${value} +${mm} mm` }))} />
          </Form.Item>
        )}
        <div className="fields">
          {asked.worn !== 'neck' && number('Thickness, mm', 'thickness', 0)}
          {number('One repeat, mm', 'pitch', 0, 0.1)}
          {number('Clasp, rings and tapers, mm', 'ends', 0)}
          {number('Repeats in multiples of', 'multiple', 1)}
        </div>
      </Form>
      <section className={`sheet ${styles.answer}`} aria-label="Answer" aria-live="polite">
        {'trouble' in answer ? (
          <p className="notice trouble" role="alert">
            {answer.trouble}
          </p>
        ) : (
          <>
            <p className="figures">
              The piece is {answer.length.toFixed(1)} mm long, which is {answer.fit.ideal.toFixed(2)} repeats.
            </p>
            <FigureTable>
              <thead>
                <tr>
                  <th scope="col">Repeats</th>
                  <th scope="col">Length</th>
                  <th scope="col">Off by</th>
                </tr>
              </thead>
              <tbody>
                {answer.fit.candidates.map(({ count, lengthMm }) => (
                  <tr key={count} className={count === answer.fit.best ? meantRow : ''}>
                    <th scope="row">
                      {count}
                      {count === answer.fit.best && ', the best'}
                    </th>
                    <td>{lengthMm.toFixed(1)} mm</td>
                    <td>
                      {lengthMm >= answer.length ? '+' : '-'}
                      {Math.abs(lengthMm - answer.length).toFixed(1)} mm
                    </td>
                  </tr>
                ))}
              </tbody>
            </FigureTable>
            <UseInPattern
              lines={[
                `until length ${Number(answer.length.toFixed(1))} mm, pitch ${asked.pitch} mm, ends ${asked.ends} mm${asked.multiple > 1 ? `, multiple ${asked.multiple}` : ''}`,
                '  # the lines of one repeat',
                'end',
              ]}
            />
          </>
        )}
      </section>
    </div>
  )
}

function answerTo(
  asked: typeof usual,
  eases: Readonly<Record<WristEase, number>>,
): { length: number; fit: RepeatFit } | { trouble: string } {
  try {
    const { worn, measure, ease, thickness, pitch, ends, multiple } = { ...usual, ...asked }
    const length = wornLength(worn, measure, eases[ease], worn === 'neck' ? 0 : (thickness ?? 0))
    return { length, fit: fitLength(length, pitch, ends ?? 0, multiple ?? 1) }
  } catch (error) {
    if (error instanceof RangeError) return { trouble: error.message }
    throw error
  }
}
