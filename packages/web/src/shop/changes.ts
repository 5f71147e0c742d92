import { useEffect } from 'react'
import { queries } from './queries'

/** What each change at the shop makes stale on open pages. */
const stale: Readonly<Record<string, readonly string[]>> = {
  stock: ['stock', 'batches', 'buy-list', 'stocktakes', 'bench', 'diary'],
  batches: ['batches', 'stock', 'buy-list', 'packing', 'bench', 'diary', 'classes', 'orders'],
  packing: ['packing', 'batches', 'bench'],
  'buy-list': ['buy-list', 'stock', 'bench', 'diary'],
  stocktakes: ['stocktakes', 'bench'],
  classes: ['classes', 'bench', 'diary'],
  orders: ['orders', 'bench', 'diary'],
  trail: ['trail'],
  patterns: ['patterns', 'editions', 'carriers'],
  drawings: ['patterns'],
  colourways: ['colourways', 'editions'],
  samples: ['samples', 'editions'],
  everything: [
    'stock',
    'batches',
    'patterns',
    'colourways',
    'samples',
    'editions',
    'carriers',
    'buy-list',
    'packing',
    'stocktakes',
    'trail',
    'bench',
    'diary',
    'classes',
    'orders',
  ],
}

/** Listens for what others do, and reads anew what it touches. */
export function useChanges(): void {
  useEffect(() => {
    const source = new EventSource('/api/changes')
    source.onmessage = ({ data }) => {
      for (const subject of stale[String(data)] ?? [])
        void queries.invalidateQueries({ queryKey: [subject], exact: data === 'drawings' })
    }
    // Signed out elsewhere, or not to sign in any more: who is here is asked again.
    source.addEventListener('ended', () => {
      source.close()
      void queries.resetQueries({ queryKey: ['me'] })
    })
    return () => source.close()
  }, [])
}
