import { useEffect } from 'react'

/** The window's title says where one is. */
export function usePageTitle(title: string): void {
  useEffect(() => {
    document.title = title ? `${title} · Tessellum` : 'Tessellum'
  }, [title])
}
