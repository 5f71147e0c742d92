import { infiniteQueryOptions, QueryClient, queryOptions, skipToken } from '@tanstack/react-query'
import type { BatchLine } from '@tessellum/contract/batches'
import type { EditionWanted } from '@tessellum/contract/editions'
import type { LibraryWanted } from '@tessellum/contract/patterns'
import type { ShelfWanted } from '@tessellum/contract/stock'
import { call, isUnreachable, keepSession, ShopError } from './api'

export const queries = new QueryClient({
  defaultOptions: {
    // The shop may be on this very machine: it is asked even where the browser believes that there is no network.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      staleTime: 15_000,
      retry: (times, error) => isUnreachable(error) && times < 2,
      retryDelay: 700,
      refetchOnWindowFocus: false,
    },
  },
})

/** Everything the pages read, by subject; changes are told by the same first words. */
export const read = {
  me: queryOptions({
    queryKey: ['me'],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async () => {
      const found = await call('GET /api/me').catch((error: unknown) => {
        if (error instanceof ShopError && error.code === 'not-signed-in') return null
        throw error
      })
      if (found) keepSession(found)
      return found
    },
  }),
  /** Whose shop it is: told to anybody. */
  shop: queryOptions({ queryKey: ['shop'], queryFn: () => call('GET /api/shop') }),
  settings: queryOptions({ queryKey: ['settings'], queryFn: () => call('GET /api/settings') }),
  logo: queryOptions({ queryKey: ['settings', 'logo'], queryFn: () => call('GET /api/logo') }),
  /** Whether the shop's records can be reached: asked anew each time. */
  health: queryOptions({
    queryKey: ['health'],
    queryFn: () => call('GET /api/health'),
    retry: false,
    staleTime: 0,
    gcTime: 0,
  }),
  people: queryOptions({ queryKey: ['people'], queryFn: () => call('GET /api/people') }),
  /** It is another link each time it is asked for, and kept nowhere. */
  link: (personId: number) =>
    queryOptions({
      queryKey: ['people', personId, 'link'],
      queryFn: () => call('POST /api/people/:id/link', { params: { id: personId } }),
      staleTime: Number.POSITIVE_INFINITY,
      gcTime: 0,
      retry: false,
      refetchOnReconnect: false,
    }),
  /** Whom a link from the owner is for. */
  welcome: (token: string) =>
    queryOptions({
      queryKey: ['welcome', token],
      queryFn: () => call('POST /api/welcome', { body: { token } }),
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
    }),
  patterns: queryOptions({ queryKey: ['patterns'], queryFn: () => call('GET /api/patterns') }),
  /** Patterns page by page. */
  library: (wanted: Pick<LibraryWanted, 'find' | 'place' | 'level' | 'hours'>) =>
    infiniteQueryOptions({
      queryKey: ['library', wanted],
      queryFn: ({ pageParam }) => call('GET /api/library', { query: { ...wanted, ...pageParam } }),
      initialPageParam: {},
      getNextPageParam: ({ next }): Record<string, string> | undefined => (next === null ? undefined : { after: next }),
      placeholderData: (before) => before,
    }),
  pattern: (id: number) =>
    queryOptions({ queryKey: ['patterns', id], queryFn: () => call('GET /api/patterns/:id', { params: { id } }) }),
  /** As the shop has drawn it; the digest tells one drawing from the next. */
  drawing: (id: number, digest: string) =>
    queryOptions({
      queryKey: ['drawing', id, digest],
      queryFn: () => call('GET /api/patterns/:id/drawing', { params: { id }, query: { digest } }),
      staleTime: Number.POSITIVE_INFINITY,
    }),
  version: (id: number, number: number) =>
    queryOptions({
      queryKey: ['versions', id, number],
      staleTime: Number.POSITIVE_INFINITY,
      queryFn: () => call('GET /api/patterns/:id/versions/:number', { params: { id, number } }),
    }),
  pictures: (patternId: number) =>
    queryOptions({
      queryKey: ['pictures', patternId],
      queryFn: () => call('GET /api/patterns/:id/pictures', { params: { id: patternId } }),
    }),
  samples: (patternId: number) =>
    queryOptions({
      queryKey: ['samples', patternId],
      queryFn: () => call('GET /api/patterns/:id/samples', { params: { id: patternId } }),
    }),
  colourways: (patternId: number) =>
    queryOptions({
      queryKey: ['colourways', patternId],
      queryFn: () => call('GET /api/patterns/:id/colourways', { params: { id: patternId } }),
    }),
  carriers: (id: number, number: number) =>
    queryOptions({
      queryKey: ['carriers', id, number],
      queryFn: () => call('GET /api/patterns/:id/versions/:number/carriers', { params: { id, number } }),
    }),
  edition: (id: number, wanted: EditionWanted) =>
    queryOptions({
      queryKey: ['editions', id, wanted],
      queryFn: () => call('GET /api/patterns/:id/edition', { params: { id }, query: wanted }),
    }),
  items: queryOptions({ queryKey: ['stock'], queryFn: () => call('GET /api/items') }),
  item: (id: number) =>
    queryOptions({ queryKey: ['stock', id], queryFn: () => call('GET /api/items/:id', { params: { id } }) }),
  /** The shelf, page after page. */
  shelf: (wanted: Pick<ShelfWanted, 'find' | 'show' | 'by'>) =>
    infiniteQueryOptions({
      queryKey: ['stock', 'shelf', wanted],
      queryFn: ({ pageParam }) => call('GET /api/shelf', { query: { ...wanted, ...pageParam } }),
      initialPageParam: {},
      getNextPageParam: ({ next }): Record<string, string> | undefined => (next === null ? undefined : { after: next }),
      placeholderData: (before) => before,
    }),
  /** Moves before those that came with the item. */
  olderMoves: (itemId: number, before: number) =>
    infiniteQueryOptions({
      queryKey: ['stock', itemId, 'moves', before],
      queryFn: ({ pageParam }) =>
        call('GET /api/items/:id/moves', { params: { id: itemId }, query: { before: pageParam } }),
      initialPageParam: before,
      getNextPageParam: ({ moves, more }) => (more ? moves[moves.length - 1]?.id : undefined),
    }),
  places: queryOptions({
    queryKey: ['stocktakes', 'places'],
    queryFn: () => call('GET /api/places'),
  }),
  stocktakes: queryOptions({
    queryKey: ['stocktakes'],
    queryFn: () => call('GET /api/stocktakes'),
  }),
  stocktake: (id: number) =>
    queryOptions({ queryKey: ['stocktakes', id], queryFn: () => call('GET /api/stocktakes/:id', { params: { id } }) }),
  purchases: queryOptions({
    queryKey: ['buy-list', 'orders'],
    queryFn: () => call('GET /api/purchases'),
  }),
  competing: queryOptions({
    queryKey: ['batches', 'competing'],
    queryFn: () => call('GET /api/batches/competing'),
  }),
  shortagePlan: (itemId: number) =>
    queryOptions({
      queryKey: ['batches', 'shortage-plan', itemId],
      queryFn: () => call('GET /api/items/:id/shortage-plan', { params: { id: itemId } }),
    }),
  bench: queryOptions({ queryKey: ['bench'], queryFn: () => call('GET /api/bench') }),
  fetchList: queryOptions({ queryKey: ['bench', 'fetch'], queryFn: () => call('GET /api/bench/fetch') }),
  diary: (from: string, to: string) =>
    queryOptions({
      queryKey: ['diary', from, to],
      queryFn: () => call('GET /api/diary', { query: { from, to } }),
      placeholderData: (before) => before,
    }),
  classes: queryOptions({ queryKey: ['classes'], queryFn: () => call('GET /api/classes') }),
  /** What would not fit in time on another day. */
  classMove: (id: number, heldOn: string) =>
    queryOptions({
      queryKey: ['classes', id, 'move', heldOn],
      queryFn: () => call('GET /api/classes/:id/move', { params: { id }, query: { heldOn } }),
    }),
  class: (id: number) =>
    queryOptions({ queryKey: ['classes', id], queryFn: () => call('GET /api/classes/:id', { params: { id } }) }),
  teachers: queryOptions({
    queryKey: ['teachers'],
    queryFn: () => call('GET /api/teachers'),
  }),
  sales: (from: string, to: string) =>
    queryOptions({ queryKey: ['sales', from, to], queryFn: () => call('GET /api/sales', { query: { from, to } }) }),
  sellingPrice: (itemId: number) =>
    queryOptions({
      queryKey: ['sales', 'price', itemId],
      queryFn: () => call('GET /api/items/:id/selling-price', { params: { id: itemId } }),
    }),
  customers: (find: string) =>
    infiniteQueryOptions({
      queryKey: ['customers', 'find', find],
      queryFn: ({ pageParam }) => call('GET /api/customers', { query: { find, ...pageParam } }),
      initialPageParam: {},
      getNextPageParam: ({ next }): Record<string, string> | undefined => (next === null ? undefined : { after: next }),
      placeholderData: (before) => before,
    }),
  suppliers: queryOptions({ queryKey: ['suppliers'], queryFn: () => call('GET /api/suppliers') }),
  supplier: (id: number) =>
    queryOptions({
      queryKey: ['suppliers', id],
      queryFn: () => call('GET /api/suppliers/:id', { params: { id } }),
    }),
  /** The price list, page after page. */
  prices: (find: string) =>
    infiniteQueryOptions({
      queryKey: ['sales', 'prices', find],
      queryFn: ({ pageParam }) => call('GET /api/prices', { query: { find, ...pageParam } }),
      initialPageParam: {},
      getNextPageParam: ({ next }): Record<string, string> | undefined => (next === null ? undefined : { after: next }),
      placeholderData: (before) => before,
    }),
  customer: (id: number) =>
    queryOptions({
      queryKey: ['customers', id],
      queryFn: () => call('GET /api/customers/:id', { params: { id } }),
    }),
  orders: queryOptions({ queryKey: ['orders'], queryFn: () => call('GET /api/orders') }),
  costs: queryOptions({ queryKey: ['costs'], queryFn: () => call('GET /api/costs') }),
  batchPrice: (id: number) =>
    queryOptions({
      queryKey: ['batches', id, 'price'],
      queryFn: () => call('GET /api/batches/:id/price', { params: { id } }),
    }),
  audit: (find: string) =>
    infiniteQueryOptions({
      queryKey: ['audit', find],
      queryFn: ({ pageParam }) => call('GET /api/audit', { query: { find, ...pageParam } }),
      initialPageParam: {},
      getNextPageParam: ({ entries, more }): Record<string, string> | undefined =>
        more ? { before: String(entries[entries.length - 1]?.id) } : undefined,
      placeholderData: (before) => before,
    }),
  buyList: queryOptions({ queryKey: ['buy-list'], queryFn: () => call('GET /api/buy-list') }),
  packing: (id: number) =>
    queryOptions({
      queryKey: ['packing', id],
      queryFn: () => call('GET /api/batches/:id/packing', { params: { id } }),
    }),
  standIns: queryOptions({
    queryKey: ['stand-ins'],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => call('GET /api/stand-ins'),
  }),
  /** What a batch would take, and what the shelf allows. Nothing is asked before there are lines. */
  outlook: (lines: readonly BatchLine[] | undefined, batchId: number | undefined) =>
    queryOptions({
      queryKey: ['batches', 'outlook', lines, batchId],
      queryFn: lines?.length
        ? () => call('POST /api/batches/outlook', { body: { lines: [...lines], batchId } })
        : skipToken,
      placeholderData: (before) => before,
    }),
  /** How many sets of these lines the shelf allows. */
  couldMake: (lines: readonly BatchLine[] | undefined) =>
    queryOptions({
      queryKey: ['batches', 'could-make', lines],
      queryFn: lines?.length ? () => call('POST /api/batches/could-make', { body: { lines: [...lines] } }) : skipToken,
      placeholderData: (before) => before,
    }),
  batches: queryOptions({ queryKey: ['batches'], queryFn: () => call('GET /api/batches') }),
  batch: (id: number) =>
    queryOptions({ queryKey: ['batches', id], queryFn: () => call('GET /api/batches/:id', { params: { id } }) }),
}
