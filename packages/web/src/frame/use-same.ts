import { useRef } from 'react'

/** The value that was given first, for as long as those after it are equal to it: what comes from a worker is another object each time. */
export function useSame<Value>(value: Value): Value {
  const first = useRef(value)
  if (JSON.stringify(first.current) !== JSON.stringify(value)) first.current = value
  return first.current
}
