import type { Worn } from '@tessellum/core/desk/wearer'
import { type Mm, mmPerInch, sayLength, trim } from '@tessellum/core/measure/units'
import { fingerSizes } from '@tessellum/core/sizing/finger'
import { Select } from 'antd'
import { NumberField } from '../frame/number-field'
import { useUnits } from './use-units'

interface MeasureFieldProps {
  readonly worn: Worn
  readonly value?: Mm | null | undefined
  readonly onChange?: (mm: Mm | null) => void
  readonly id?: string
  readonly width?: number | string
  /** Where no label stands beside it. */
  readonly name?: string
}

/** Of who wears it, in what the shop measures in: a wrist or a neck as a length, a finger by its size. The value is in millimetres. */
export function MeasureField({ worn, value = null, onChange, width = '100%', name, id }: MeasureFieldProps) {
  const { system, fingers } = useUnits()
  if (worn === 'finger' && fingers !== 'ISO') {
    const sizes = fingerSizes(fingers)
    const known = value === null || sizes.some(({ mm }) => mm === value)
    const options = sizes.map(({ size, mm }) => ({ value: mm, label: `${fingers} ${size}` }))
    return (
      <Select
        {...(id ? { id } : {})}
        {...(name ? { 'aria-label': name } : {})}
        style={{ width }}
        showSearch
        allowClear
        value={value}
        optionFilterProp="label"
        onChange={(mm: Mm | undefined) => onChange?.(mm ?? null)}
        // A finger that was measured otherwise stays as it was.
        options={known ? options : [{ value, label: `${sayLength(value)} round` }, ...options]}
      />
    )
  }
  const [per, suffix] = worn === 'finger' ? [1, 'mm'] : system === 'inches' ? [mmPerInch, 'in'] : [10, 'cm']
  return (
    <NumberField
      {...(id ? { id } : {})}
      {...(name ? { 'aria-label': `${name}, ${suffix}` } : {})}
      style={{ width }}
      min={0.1}
      max={3000 / per}
      step={worn === 'finger' ? 1 : system === 'inches' ? 0.25 : 0.5}
      suffix={suffix}
      value={value === null ? null : Number(trim(value / per, 2))}
      onChange={(typed) => onChange?.(typed === null ? null : Number((typed * per).toFixed(1)))}
    />
  )
}
