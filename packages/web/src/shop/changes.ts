import { useNews } from '../stream/news'
import { queries, read } from './queries'

/** What each change at the shop makes stale on open pages. */
const stale: Readonly<Record<string, readonly string[]>> = {
  stock: ['stock', 'batches', 'buy-list', 'stocktakes', 'bench', 'diary'],
  batches: ['batches', 'stock', 'buy-list', 'packing', 'bench', 'diary', 'classes', 'orders'],
  packing: ['packing', 'batches', 'bench'],
  'buy-list': ['buy-list', 'stock', 'bench', 'diary', 'suppliers'],
  stocktakes: ['stocktakes', 'bench'],
  classes: ['classes', 'bench', 'diary', 'customers'],
  orders: ['orders', 'bench', 'diary', 'customers'],
  sales: ['sales', 'customers'],
  customers: ['customers', 'classes'],
  audit: ['audit'],
  patterns: ['patterns', 'library', 'editions', 'carriers'],
  drawings: ['library'],
  colourways: ['colourways', 'editions'],
  samples: ['samples', 'editions'],
  pictures: ['pictures', 'editions'],
  settings: ['settings', 'shop', 'costs', 'editions', 'batches', 'buy-list', 'bench', 'diary', 'classes', 'sales'],
  everything: [
    'stock',
    'batches',
    'patterns',
    'library',
    'colourways',
    'samples',
    'pictures',
    'editions',
    'carriers',
    'buy-list',
    'packing',
    'stocktakes',
    'audit',
    'bench',
    'diary',
    'classes',
    'orders',
    'settings',
    'costs',
    'sales',
    'customers',
    'suppliers',
  ],
}

/** Listens for what others do, and reads again what it touches; when the session has ended, who is here is asked again. */
export function useChanges(): void {
  useNews((news) => {
    if (news.about === 'ended') void queries.resetQueries({ queryKey: read.me.queryKey })
    if (news.about !== 'changes') return
    for (const subject of stale[news.subject] ?? []) void queries.invalidateQueries({ queryKey: [subject] })
  })
}
