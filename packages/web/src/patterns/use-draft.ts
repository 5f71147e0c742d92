import { useQueryClient } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { useCallback, useEffect, useRef, useState } from 'react'
import { call, isUnreachable, ShopError } from '../shop/api'
import { read } from '../shop/queries'

/** How a draft stands: every state is told to the person who types. */
export type DraftState = 'saved' | 'typing' | 'saving' | 'kept here' | 'moved on'

interface Draft {
  readonly text: string
  readonly state: DraftState
  readonly trouble: string | undefined
  edit(text: string): void
  /** Saves at once; gives the revision that was saved, or undefined where it could not be. */
  save(): Promise<number | undefined>
  /** When somebody else has saved meanwhile: goes on with this text, or with theirs. */
  settle(whose: 'mine' | 'theirs'): Promise<void>
}

const pauseMs = 700
const again = 4000
const keptAt = (id: number) => `tessellum draft ${id}`

interface Kept {
  readonly text: string
  readonly revision: number
}

/** What an earlier page kept in this browser because it could not save it. */
function keptHere(id: number): Kept | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(keptAt(id)) ?? 'null') as Kept | null
    return kept && typeof kept.text === 'string' && typeof kept.revision === 'number' ? kept : undefined
  } catch {
    return undefined
  }
}

function keepHere(id: number, kept: Kept | undefined): void {
  try {
    if (kept) localStorage.setItem(keptAt(id), JSON.stringify(kept))
    else localStorage.removeItem(keptAt(id))
  } catch {
    // A browser that keeps nothing still has the text on the page.
  }
}

/** A pattern's text as it is typed: kept in the browser at once and saved to the shop after a pause. */
export function useDraft(shop: Pattern, mayWrite: boolean): Draft {
  const client = useQueryClient()
  const [found] = useState(() => (mayWrite ? keptHere(shop.id) : undefined))
  const unsaved = found !== undefined && found.text !== shop.source
  const [text, setText] = useState(unsaved ? found.text : shop.source)
  const [state, setState] = useState<DraftState>(
    unsaved ? (found.revision === shop.revision ? 'typing' : 'moved on') : 'saved',
  )
  const [trouble, setTrouble] = useState<string>()
  const live = useRef({ text, revision: shop.revision, saved: shop.source })
  const saving = useRef<Promise<number | undefined>>(undefined)

  // Somebody else's save arrives while nothing is being typed here: take it over.
  useEffect(() => {
    if (state === 'saved' && shop.revision > live.current.revision) {
      live.current = { text: shop.source, revision: shop.revision, saved: shop.source }
      setText(shop.source)
    }
  }, [shop, state])

  const saveOnce = useCallback(async (): Promise<number | undefined> => {
    const { text, revision, saved } = live.current
    if (text === saved) return revision
    setState('saving')
    try {
      const answer = await call('PUT /api/patterns/:id/draft', {
        params: { id: shop.id },
        body: { source: text, revision },
      })
      live.current.revision = answer.revision
      live.current.saved = text
      setTrouble(undefined)
      client.setQueryData(['patterns', shop.id], answer)
      if (live.current.text === text) {
        keepHere(shop.id, undefined)
        setState('saved')
      } else {
        keepHere(shop.id, { text: live.current.text, revision: answer.revision })
        setState('typing')
      }
      return answer.revision
    } catch (error) {
      const moved = error instanceof ShopError && error.code === 'draft-moved-on'
      setState(moved ? 'moved on' : 'kept here')
      setTrouble(
        error instanceof ShopError && !isUnreachable(error) ? `${error.message} ${error.hint ?? ''}` : undefined,
      )
      return undefined
    }
  }, [client, shop.id])

  const save = useCallback(async () => {
    // One save at a time: the next builds on the revision that the last one made.
    while (saving.current) await saving.current
    saving.current = saveOnce()
    const revision = await saving.current
    saving.current = undefined
    return revision
  }, [saveOnce])

  // Whoever leaves before the pause is over finds on the next page what was typed last.
  const leaving = useRef(save)
  leaving.current = save
  useEffect(() => () => void (mayWrite && leaving.current()), [mayWrite])

  useEffect(() => {
    if (!mayWrite || (state !== 'typing' && state !== 'kept here')) return
    const timer = setTimeout(() => void save(), state === 'typing' ? pauseMs : again)
    return () => clearTimeout(timer)
    // `text` restarts the pause with every keystroke.
  }, [state, text, mayWrite, save])

  const edit = useCallback(
    (next: string) => {
      live.current.text = next
      setText(next)
      keepHere(shop.id, next === live.current.saved ? undefined : { text: next, revision: live.current.revision })
      setState((before) => (before === 'moved on' ? before : next === live.current.saved ? 'saved' : 'typing'))
    },
    [shop.id],
  )
  const settle = useCallback(
    async (whose: 'mine' | 'theirs') => {
      const theirs = await client.fetchQuery({ ...read.pattern(shop.id), staleTime: 0 })
      live.current.revision = theirs.revision
      live.current.saved = theirs.source
      setTrouble(undefined)
      if (whose === 'mine') {
        // Saved after the pause, on top of what they saved.
        setState(live.current.text === theirs.source ? 'saved' : 'typing')
        return
      }
      live.current.text = theirs.source
      keepHere(shop.id, undefined)
      setText(theirs.source)
      setState('saved')
    },
    [client, shop.id],
  )
  return { text, state, trouble, edit, save, settle }
}
