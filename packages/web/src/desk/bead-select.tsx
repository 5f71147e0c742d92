import { Form, Select } from 'antd'
import styles from './bead-select.module.css'
import type { BeadChoice } from './beads'

/** Which bead, in a desk's form. */
export function BeadSelect({ label, name, choices }: { label: string; name: string; choices: readonly BeadChoice[] }) {
  return (
    <Form.Item label={label} name={name} rules={[{ required: true, message: `${label}: choose one.` }]}>
      <Select
        showSearch
        className={styles.choice ?? ''}
        options={choices.map(({ value, label }) => ({ value, label }))}
        optionFilterProp="label"
      />
    </Form.Item>
  )
}

export const beadIn = (choices: readonly BeadChoice[], value: string | undefined) =>
  choices.find((each) => each.value === value)?.bead
