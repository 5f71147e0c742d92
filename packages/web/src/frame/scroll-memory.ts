import { type RefObject, useLayoutEffect, useRef } from 'react'
import { useLocation, useNavigationType } from 'react-router'

/** What somebody scrolls with. */
const moves = ['wheel', 'touchmove', 'keydown', 'pointerdown']

/**
 * Pages scroll within the frame, which stays: another page begins at its top, and back and forward find a page where it was left. What it shows may come
 * in by and by, so the place is sought until it is there or somebody scrolls.
 */
export function useScrollMemory(main: RefObject<HTMLElement | null>): void {
  const { key, pathname } = useLocation()
  const type = useNavigationType()
  const places = useRef(new Map<string, number>())
  const shown = useRef(pathname)

  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each place in the history
  useLayoutEffect(() => {
    const element = main.current
    const isNew = shown.current !== pathname
    shown.current = pathname
    if (!element) return
    if (type !== 'POP') {
      if (isNew) element.scrollTop = 0
      return
    }
    const wanted = places.current.get(key) ?? 0
    const seek = () => {
      element.scrollTop = wanted
      if (Math.abs(element.scrollTop - wanted) < 2) stop()
    }
    const grown = new MutationObserver(seek)
    const stop = () => {
      grown.disconnect()
      for (const each of moves) element.removeEventListener(each, stop)
    }
    grown.observe(element, { childList: true, subtree: true })
    for (const each of moves) element.addEventListener(each, stop, { passive: true })
    seek()
    return stop
  }, [key])

  useLayoutEffect(() => {
    const element = main.current
    const remember = () => places.current.set(key, element?.scrollTop ?? 0)
    element?.addEventListener('scroll', remember, { passive: true })
    return () => element?.removeEventListener('scroll', remember)
  }, [main, key])
}
