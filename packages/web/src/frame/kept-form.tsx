/** Forms whose words are kept in this tab until they are sent: a reload, Back, Escape or a click beside the form loses nothing. */
import { Button, Form, type FormProps } from 'antd'
import dayjs from 'dayjs'
import { useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { signedIn } from '../shop/api'
import { AskFirst } from './ask-first'
import styles from './kept-form.module.css'

const place = (name: string) => `tessellum form ${signedIn()} ${name}`

/** Days are told from text by their shape. */
const written = (values: object): string =>
  JSON.stringify(values, function (this: Record<string, unknown>, key, value) {
    const raw = this[key]
    return dayjs.isDayjs(raw) ? { day: raw.toISOString() } : value
  })

const readAgain = (text: string): object =>
  JSON.parse(text, (_, value) => (typeof value?.day === 'string' ? dayjs(value.day) : value))

function keptOf<Values extends object>(name: string): Values | undefined {
  const text = sessionStorage.getItem(place(name))
  return text === null ? undefined : (readAgain(text) as Values)
}

/** Once it is sent. */
export const forgetForm = (name: string): void => sessionStorage.removeItem(place(name))

interface KeptFormProps<Fields> extends FormProps<Fields> {
  /** What it is for: a form of another item keeps its own words. */
  readonly name: string
  /** What is chosen beside the fields, and kept with them. */
  readonly beside?: Pick<Kept<object>, 'kept' | 'forget'>
}

export function KeptForm<Fields extends object>({
  name,
  form,
  initialValues,
  onValuesChange,
  beside,
  children,
  ...rest
}: KeptFormProps<Fields>) {
  const [own] = Form.useForm<Fields>(form)
  const [kept, setKept] = useState(() => keptOf<Fields>(name))
  const startAgain = () => {
    forgetForm(name)
    flushSync(() => setKept(undefined))
    own.resetFields()
    beside?.forget()
  }
  return (
    <Form<Fields>
      {...rest}
      name={name}
      form={own}
      initialValues={{ ...initialValues, ...kept }}
      onValuesChange={(changed, all) => {
        sessionStorage.setItem(place(name), written(all))
        onValuesChange?.(changed, all)
      }}
    >
      {(kept ?? beside?.kept) && (
        <div className={`notice ${styles.above}`} role="status">
          What you had typed is still here.{' '}
          <AskFirst
            title="Discard what you typed?"
            follows="The form goes back to how it was."
            ok="Throw it away"
            run={startAgain}
          >
            <Button size="small">Start again</Button>
          </AskFirst>
        </div>
      )}
      {children as React.ReactNode}
    </Form>
  )
}

interface Kept<Value> {
  readonly value: Value
  /**
   * @param next or how it follows from what it is by then: what was rendered may be older
   * @param byItself not by a person: nothing that must be kept
   */
  change(next: Value | ((before: Value) => Value), byItself?: boolean): void
  /** It was found here, from before. */
  readonly kept: boolean
  forget(): void
}

/** What is chosen beside the fields of a form, kept as they are. */
export function useKept<Value extends object>(name: string, initial: Value): Kept<Value> {
  const [{ value, kept }, set] = useState(() => {
    const before = keptOf<Value>(name)
    return { value: before ?? initial, kept: before !== undefined }
  })
  const latest = useRef(value)
  const become = (next: Value, kept: boolean) => {
    latest.current = next
    set({ value: next, kept })
  }
  return {
    value,
    kept,
    change: (change, byItself = false) => {
      const next = typeof change === 'function' ? change(latest.current) : change
      if (!byItself) sessionStorage.setItem(place(name), written(next))
      become(next, kept)
    },
    forget: () => {
      forgetForm(name)
      become(initial, false)
    },
  }
}
