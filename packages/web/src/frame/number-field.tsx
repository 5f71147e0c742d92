import { bothWays, readNumber } from '@tessellum/core/measure/read-number'
import { Button, InputNumber, type InputNumberProps } from 'antd'
import { type ComponentRef, type Ref, useCallback, useRef, useState } from 'react'
import styles from './number-field.module.css'

export type NumberFieldRef = ComponentRef<typeof InputNumber>

type NumberFieldProps = Omit<InputNumberProps<number>, 'formatter' | 'parser' | 'stringMode' | 'decimalSeparator'> & {
  readonly ref?: Ref<NumberFieldRef>
}

const decimalsOf = (figure: string | number): number => String(figure).split('.')[1]?.length ?? 0

/**
 * The one field for numbers. A point and a comma are both understood; what could be read in two ways is asked, and what is no number stays as it was
 * typed. Until it is understood the field's value is NaN, which no form sends.
 */
export function NumberField({ onChange, onInput, onBlur, precision, step = 1, ...rest }: NumberFieldProps) {
  const typed = useRef('')
  const [unclear, setUnclear] = useState<string>()
  const parse = useCallback((text: string | undefined): number => {
    const read = readNumber(text ?? '', false)
    return typeof read === 'number' ? read : text?.trim() ? Number.NaN : ('' as unknown as number)
  }, [])
  const show = useCallback(
    (value: number | string | undefined, { userTyping, input }: { userTyping: boolean; input: string }) => {
      if (userTyping) return input
      if (value === undefined || value === '') return ''
      const figure = Number(value)
      if (Number.isNaN(figure)) return typed.current
      return figure.toFixed(precision ?? Math.max(decimalsOf(value), decimalsOf(step)))
    },
    [precision, step],
  )
  const { value } = rest
  const asked = unclear !== undefined && Number.isNaN(value) ? unclear : undefined
  const ways = asked === undefined ? undefined : bothWays(asked)
  return (
    <>
      <InputNumber<number>
        {...rest}
        {...(precision === undefined ? {} : { precision })}
        step={step}
        parser={parse}
        formatter={show}
        {...(asked === undefined ? {} : { status: 'error' as const })}
        {...(onChange ? { onChange } : {})}
        onInput={(text) => {
          typed.current = text
          setUnclear(undefined)
          if (Number.isNaN(parse(text))) onChange?.(Number.NaN)
          onInput?.(text)
        }}
        onBlur={(event) => {
          if (Number.isNaN(parse(typed.current))) setUnclear(typed.current)
          onBlur?.(event)
        }}
      />
      {asked !== undefined && (
        <span role="alert" className={styles.asked}>
          {ways ? `Is "${asked}" ` : `"${asked}" is not a number.`}
          {ways?.map((way, i) => (
            <span key={way}>
              {i > 0 && ' or '}
              <Button size="small" onClick={() => onChange?.(way)}>
                {way}
              </Button>
            </span>
          ))}
          {ways && '?'}
        </span>
      )}
    </>
  )
}
