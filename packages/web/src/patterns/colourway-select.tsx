import type { Colourway } from '@tessellum/contract/colourways'
import { Select } from 'antd'
import styles from './colourway-select.module.css'

interface ColourwaySelectProps {
  /** Undefined while they are being fetched. */
  readonly colourways: readonly Colourway[] | undefined
  readonly chosen: Colourway | undefined
  /** Goes into the page's address. */
  readonly set: (name: string, value: string) => void
}

/** In which colourway a pattern is shown, or in none. */
export function ColourwaySelect({ colourways, chosen, set }: ColourwaySelectProps) {
  return (
    <Select
      aria-label="Colourway"
      className={styles.colourway ?? ''}
      value={chosen ? String(chosen.id) : 'none'}
      onChange={(value) => set('colourway', value)}
      options={[
        ...(colourways ?? []).map((each) => ({ value: String(each.id), label: each.name })),
        { value: 'none', label: 'No colourway' },
      ]}
    />
  )
}
