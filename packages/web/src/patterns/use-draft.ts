import { useQueryClient } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { useEffect, useRef, useState, useSyncExternalStore } from 'react'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { Draft, type DraftStands, type KeptDraft } from './draft'

const keptAt = (id: number) => `tessellum draft ${id}`

function keptHere(id: number): KeptDraft | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(keptAt(id)) ?? 'null') as KeptDraft | null
    return kept && typeof kept.text === 'string' && typeof kept.revision === 'number' ? kept : undefined
  } catch {
    return undefined
  }
}

function keepHere(id: number, kept: KeptDraft | undefined): void {
  try {
    if (kept) localStorage.setItem(keptAt(id), JSON.stringify(kept))
    else localStorage.removeItem(keptAt(id))
  } catch {
    // A browser that keeps nothing still has the text on the page.
  }
}

/**
 * A pattern's draft, for as long as its page is open. Who may not write finds the shop's text, and saves nothing. The page is not rendered when
 * it changes: whatever shows some of it asks for that by `useOfDraft`.
 */
export function useDraft(pattern: Pattern, mayWrite: boolean): Draft {
  const client = useQueryClient()
  const { id } = pattern
  const [draft] = useState(
    () =>
      new Draft(pattern, {
        save: async (source, revision) => {
          const answer = await call('PUT /api/patterns/:id/draft', { params: { id }, body: { source, revision } })
          client.setQueryData(read.pattern(id).queryKey, answer)
          return answer
        },
        read: () => client.fetchQuery({ ...read.pattern(id), staleTime: 0 }),
        kept: () => (mayWrite ? keptHere(id) : undefined),
        keep: (kept) => mayWrite && keepHere(id, kept),
        later: (act, ms) => {
          const timer = setTimeout(act, ms)
          return () => clearTimeout(timer)
        },
      }),
  )
  useEffect(() => draft.takeOver(pattern), [draft, pattern])
  useEffect(() => {
    draft.open()
    return () => draft.close()
  }, [draft])
  return draft
}

/** Whether somebody types, or has only just stopped. */
export const useTyping = (draft: Draft): boolean => useOfDraft(draft, ({ state }) => state === 'typing')

/** As it was when the text was last at rest: what would move the page at every key waits until nobody types. */
export function useAtRest<Value>(draft: Draft, value: Value): Value {
  const typing = useTyping(draft)
  const shown = useRef(value)
  if (!typing) shown.current = value
  return shown.current
}

/** Something of a draft, as it is now. */
export const useOfDraft = <Some>(draft: Draft, some: (stands: DraftStands) => Some): Some =>
  useSyncExternalStore(draft.subscribe, () => some(draft.current()))
