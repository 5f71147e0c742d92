import { useInfiniteQuery } from '@tanstack/react-query'
import type { Customer } from '@tessellum/contract/customers'
import { AutoComplete } from 'antd'
import { useDeferredValue } from 'react'
import { useMay } from '../people/me'
import { read } from '../shop/queries'
import styles from './customer-field.module.css'

/** A name as it is typed; with the customer's number where they are on record. */
export interface Who {
  readonly name: string
  readonly id: number | null
}

export const nobody: Who = { name: '', id: null }

interface CustomerFieldProps {
  readonly id?: string
  readonly label?: string
  readonly value?: Who
  readonly onChange?: (who: Who) => void
  readonly onLeave?: () => void
  /** Somebody on record was chosen. */
  readonly onKnown?: (customer: Customer) => void
  readonly placeholder?: string
  readonly autoFocus?: boolean
}

/** Anybody's name; customers on record are offered while it is typed. */
export function CustomerField({
  id,
  label,
  value = nobody,
  onChange,
  onLeave,
  onKnown,
  placeholder,
  autoFocus = false,
}: CustomerFieldProps) {
  const mayRead = useMay('customers.read')
  const find = useDeferredValue(value.name.trim())
  const { data } = useInfiniteQuery({
    ...read.customers(find),
    enabled: mayRead && find.length > 0 && value.id === null,
  })
  const found = value.id === null && find ? (data?.pages[0]?.customers ?? []) : []
  return (
    <div className={styles.field}>
      <AutoComplete
        {...(id ? { id } : {})}
        {...(label ? { 'aria-label': label } : {})}
        autoFocus={autoFocus}
        maxLength={80}
        {...(placeholder ? { placeholder } : {})}
        value={value.name}
        options={found.slice(0, 8).map((each) => ({
          value: String(each.id),
          label: each.contact ? `${each.name}, ${each.contact}` : each.name,
        }))}
        onChange={(name: string) => onChange?.({ name, id: null })}
        onSelect={(chosen: string) => {
          const customer = found.find((each) => String(each.id) === chosen)
          if (!customer) return
          onChange?.({ name: customer.name, id: customer.id })
          onKnown?.(customer)
        }}
        onBlur={() => onLeave?.()}
        onInputKeyDown={(event) => event.key === 'Enter' && onLeave?.()}
      />
    </div>
  )
}
