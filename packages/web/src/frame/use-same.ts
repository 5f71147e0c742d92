import { useRef } from 'react'

/** Keeps the first of equal values, for memoized components: what comes from a worker is a new object each time. */
export function useSame<Value>(value: Value): Value {
  const first = useRef(value)
  if (JSON.stringify(first.current) !== JSON.stringify(value)) first.current = value
  return first.current
}
