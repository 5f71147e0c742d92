import { useRef } from 'react'
import { newKey } from './api'

/**
 * The key of a thing that a person does: the same while the same is sent again, as when the shop did not answer, and a new one for anything else.
 * Let go of it when the thing is done.
 */
export function useKeyFor(): { readonly keyFor: (body: unknown) => string; readonly done: () => void } {
  const last = useRef<{ body: string; key: string }>(undefined)
  return {
    keyFor(body) {
      const text = JSON.stringify(body)
      if (last.current?.body !== text) last.current = { body: text, key: newKey() }
      return last.current.key
    },
    done() {
      last.current = undefined
    },
  }
}
