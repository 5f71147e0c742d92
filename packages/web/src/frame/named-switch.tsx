import { Switch } from 'antd'
import { useId } from 'react'
import styles from './named-switch.module.css'

/** A small switch with its name beside it. */
export function NamedSwitch({ name, on, change }: { name: string; on: boolean; change: (on: boolean) => void }) {
  const id = useId()
  return (
    <span className={styles.switch}>
      <Switch id={id} size="small" checked={on} onChange={change} /> <label htmlFor={id}>{name}</label>
    </span>
  )
}
