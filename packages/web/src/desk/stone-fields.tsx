/** What a stone is, as fields of a form. */
import { Form, type FormInstance, Select } from 'antd'
import { NumberField } from '../frame/number-field'
import styles from './stone-fields.module.css'

export interface StoneMeasures {
  readonly shape: string
  readonly width: number
  readonly length: number
  readonly corner: number
  readonly height: number
  readonly profile: string
}

export const usualStone: StoneMeasures = {
  shape: 'round',
  width: 14,
  length: 18,
  corner: 2,
  height: 4,
  profile: 'domed',
}

const long = ['oval', 'rectangle', 'navette', 'drop']
const cornered = ['square', 'rectangle']
const shapes = ['round', 'oval', 'square', 'rectangle', 'triangle', 'navette', 'drop', 'girth']
const profiles = ['flat', 'domed', 'pointed', 'bead']

/** As a pattern would say it: "oval 13 x 18 mm, height 5 mm, domed". */
export const stoneWords = ({ shape, width, length, corner, height, profile }: StoneMeasures): string =>
  `${shape} ${width}${long.includes(shape) ? ` x ${length}` : ''} mm${
    cornered.includes(shape) ? `, r = ${corner} mm` : ''
  }, height ${height} mm, ${profile}`

export const NumberItem = ({ label, name, least }: { label: string; name: string; least: number }) => (
  <Form.Item label={label} name={name} rules={[{ required: true, message: `${label}: give it.` }]}>
    <NumberField min={least} className={styles.figure ?? ''} />
  </Form.Item>
)

export function StoneFields({ form }: { form: FormInstance }) {
  const shape = Form.useWatch('shape', form) ?? usualStone.shape
  return (
    <>
      <Form.Item label="Stone" name="shape">
        <Select
          className={styles.cut ?? ''}
          options={shapes.map((value) => ({ value, label: value === 'girth' ? 'measured girth' : value }))}
        />
      </Form.Item>
      <div className="fields">
        <NumberItem
          label={shape === 'girth' ? 'Girth, mm' : shape === 'round' ? 'Across, mm' : 'Width, mm'}
          name="width"
          least={0}
        />
        {long.includes(shape) && <NumberItem label="Length, mm" name="length" least={0} />}
        {cornered.includes(shape) && <NumberItem label="Corner radius, mm" name="corner" least={0} />}
        <NumberItem label="Height, mm" name="height" least={0} />
        <Form.Item label="Profile" name="profile">
          <Select className={styles.size ?? ''} options={profiles.map((value) => ({ value, label: value }))} />
        </Form.Item>
      </div>
    </>
  )
}
