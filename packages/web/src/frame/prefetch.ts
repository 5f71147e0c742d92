/** A page is fetched while the mouse, or the focus, rests on a link to it: its code, and what it reads first. */
import { matchRoutes, type Params, type RouteObject } from 'react-router'

/** What a route may say of itself beside its component. */
export interface Ahead {
  /** Begins to read what the page shows first. */
  readonly ahead: (params: Params) => void
}

/** A mouse that only passes by asks for nothing. */
const restMs = 80

export function prefetchPages(routes: RouteObject[]): void {
  let waiting: ReturnType<typeof setTimeout> | undefined
  const rests = ({ target }: Event) => {
    clearTimeout(waiting)
    const link = target instanceof Element ? target.closest('a') : null
    if (link?.origin === location.origin) waiting = setTimeout(() => fetchPage(routes, link.pathname), restMs)
  }
  document.addEventListener('pointerover', rests)
  document.addEventListener('focusin', rests)
}

function fetchPage(routes: RouteObject[], path: string): void {
  for (const { route, params } of matchRoutes(routes, path) ?? []) {
    // What cannot be fetched now is asked for again by the page itself, and told there.
    if (typeof route.lazy === 'function') void route.lazy().catch(() => undefined)
    const { ahead } = (route.handle ?? {}) as Partial<Ahead>
    ahead?.(params)
  }
}
