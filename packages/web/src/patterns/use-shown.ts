import { useQuery } from '@tanstack/react-query'
import type { Colourway } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import { usualSize } from '@tessellum/core/evaluate/usual-size'
import { useCallback, useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { read } from '../shop/queries'
import { useChosen } from './use-chosen'
import { useSettings } from './use-settings'

/** What of a pattern is looked at, kept in the address: its size, its colourway, the options that are set otherwise than it says. */
export function useShown(pattern: Pattern) {
  const [params, setParams] = useSearchParams()
  const { data: items } = useQuery(read.items)
  const { data: colourways } = useQuery(read.colourways(pattern.id))
  const asked = params.get('colourway')
  const colourway: Colourway | undefined =
    asked === 'none' ? undefined : (colourways?.find((each) => each.id === Number(asked)) ?? colourways?.[0])
  const usual = useMemo(() => usualSize(pattern.source), [pattern.source])
  const size = params.get('size') || usual
  const chosen = useChosen(colourway, size, items)
  const settings = useSettings(pattern.id)
  const off = params.getAll('off').join(' ')
  const on = params.getAll('on').join(' ')
  const options = useMemo(() => optionsIn(on, off), [on, off])
  const choices: Choices = useMemo(
    () => ({ ...(size ? { size } : {}), beads: chosen.beads, counting: chosen.counting, options, settings }),
    [size, chosen, options, settings],
  )
  // Each change is made to the address as it is then, so that two quick ones do not undo each other.
  const change = useCallback(
    (how: (params: URLSearchParams) => void) =>
      setParams(
        () => {
          const next = new URLSearchParams(window.location.search)
          how(next)
          return next
        },
        { replace: true },
      ),
    [setParams],
  )
  const set = useCallback((name: string, value: string) => change((next) => next.set(name, value)), [change])
  const setOption = useCallback(
    (name: string, to: boolean) =>
      change((next) => {
        for (const way of ['on', 'off']) {
          const others = next.getAll(way).filter((each) => each !== name)
          next.delete(way)
          for (const other of others) next.append(way, other)
        }
        next.append(to ? 'on' : 'off', name)
      }),
    [change],
  )
  return { params, items, colourways, colourway, size, chosen, options, settings, choices, set, setOption }
}

const optionsIn = (on: string, off: string): Readonly<Record<string, boolean>> =>
  Object.fromEntries([
    ...off.split(' ').flatMap((name) => (name ? [[name, false] as const] : [])),
    ...on.split(' ').flatMap((name) => (name ? [[name, true] as const] : [])),
  ])
