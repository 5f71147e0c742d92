import { infiniteQueryOptions, QueryClient, queryOptions } from '@tanstack/react-query'
import { auditPage } from '@tessellum/contract/audit'
import { batch, batchSummary, competing } from '@tessellum/contract/batches'
import { buyLine, purchase } from '@tessellum/contract/buying'
import { classAnswer, classSummary } from '@tessellum/contract/classes'
import { colourway } from '@tessellum/contract/colourways'
import { batchPrice, bench, costSettings, diary } from '@tessellum/contract/diary'
import { edition } from '@tessellum/contract/editions'
import { order } from '@tessellum/contract/orders'
import { packing } from '@tessellum/contract/packing'
import { carrier, pattern, patternSummary, versionText } from '@tessellum/contract/patterns'
import { me, person } from '@tessellum/contract/people'
import { rescue } from '@tessellum/contract/rescue'
import { samples } from '@tessellum/contract/samples'
import { item, itemStory, movesPage, type ShelfWanted, shelfPage } from '@tessellum/contract/stock'
import { placeSummary, stocktake, stocktakeSummary } from '@tessellum/contract/stocktake'
import { isView, type View } from '@tessellum/core/drawing/view'
import { z } from 'zod'
import { ask, isUnreachable, keepSession, ShopError } from './api'

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
      const found = await ask('GET', '/me', me).catch((error: unknown) => {
        if (error instanceof ShopError && error.code === 'not-signed-in') return null
        throw error
      })
      if (found) keepSession(found)
      return found
    },
  }),
  people: queryOptions({ queryKey: ['people'], queryFn: () => ask('GET', '/people', z.array(person)) }),
  patterns: queryOptions({ queryKey: ['patterns'], queryFn: () => ask('GET', '/patterns', z.array(patternSummary)) }),
  pattern: (id: number) =>
    queryOptions({ queryKey: ['patterns', id], queryFn: () => ask('GET', `/patterns/${id}`, pattern) }),
  /** As the shop has drawn it; the digest tells one drawing from the next. */
  drawing: (id: number, digest: string) =>
    queryOptions({
      queryKey: ['drawing', id, digest],
      queryFn: () => ask('GET', `/patterns/${id}/drawing?digest=${digest}`, z.custom<View>(isView)),
      staleTime: Number.POSITIVE_INFINITY,
    }),
  version: (id: number, number: number) =>
    queryOptions({
      queryKey: ['versions', id, number],
      staleTime: Number.POSITIVE_INFINITY,
      queryFn: () => ask('GET', `/patterns/${id}/versions/${number}`, versionText),
    }),
  samples: (patternId: number) =>
    queryOptions({
      queryKey: ['samples', patternId],
      queryFn: () => ask('GET', `/patterns/${patternId}/samples`, samples),
    }),
  colourways: (patternId: number) =>
    queryOptions({
      queryKey: ['colourways', patternId],
      queryFn: () => ask('GET', `/patterns/${patternId}/colourways`, z.array(colourway)),
    }),
  carriers: (id: number, number: number) =>
    queryOptions({
      queryKey: ['carriers', id, number],
      queryFn: () => ask('GET', `/patterns/${id}/versions/${number}/carriers`, z.array(carrier)),
    }),
  /** @param wanted version, size and colourway, as a query */
  edition: (id: number, wanted: string) =>
    queryOptions({
      queryKey: ['editions', id, wanted],
      queryFn: () => ask('GET', `/patterns/${id}/edition?${wanted}`, edition),
    }),
  items: queryOptions({ queryKey: ['stock'], queryFn: () => ask('GET', '/items', z.array(item)) }),
  item: (id: number) => queryOptions({ queryKey: ['stock', id], queryFn: () => ask('GET', `/items/${id}`, itemStory) }),
  /** The shelf, page after page. */
  shelf: (wanted: Pick<ShelfWanted, 'find' | 'show' | 'by'>) =>
    infiniteQueryOptions({
      queryKey: ['stock', 'shelf', wanted],
      queryFn: ({ pageParam }) => ask('GET', `/shelf?${new URLSearchParams({ ...wanted, ...pageParam })}`, shelfPage),
      initialPageParam: {},
      getNextPageParam: ({ next }): Record<string, string> | undefined => (next === null ? undefined : { after: next }),
      placeholderData: (before) => before,
    }),
  /** Moves before those that came with the item. */
  olderMoves: (itemId: number, before: number) =>
    infiniteQueryOptions({
      queryKey: ['stock', itemId, 'moves', before],
      queryFn: ({ pageParam }) => ask('GET', `/items/${itemId}/moves?before=${pageParam}`, movesPage),
      initialPageParam: before,
      getNextPageParam: ({ moves, more }) => (more ? moves[moves.length - 1]?.id : undefined),
    }),
  places: queryOptions({
    queryKey: ['stocktakes', 'places'],
    queryFn: () => ask('GET', '/places', z.array(placeSummary)),
  }),
  stocktakes: queryOptions({
    queryKey: ['stocktakes'],
    queryFn: () => ask('GET', '/stocktakes', z.array(stocktakeSummary)),
  }),
  stocktake: (id: number) =>
    queryOptions({ queryKey: ['stocktakes', id], queryFn: () => ask('GET', `/stocktakes/${id}`, stocktake) }),
  purchases: queryOptions({
    queryKey: ['buy-list', 'orders'],
    queryFn: () => ask('GET', '/purchases', z.array(purchase)),
  }),
  competing: queryOptions({
    queryKey: ['batches', 'competing'],
    queryFn: () => ask('GET', '/batches/competing', competing),
  }),
  rescue: (itemId: number) =>
    queryOptions({
      queryKey: ['batches', 'rescue', itemId],
      queryFn: () => ask('GET', `/items/${itemId}/rescue`, rescue),
    }),
  bench: queryOptions({ queryKey: ['bench'], queryFn: () => ask('GET', '/bench', bench) }),
  diary: (from: string, to: string) =>
    queryOptions({
      queryKey: ['diary', from, to],
      queryFn: () => ask('GET', `/diary?${new URLSearchParams({ from, to })}`, diary),
      placeholderData: (before) => before,
    }),
  classes: queryOptions({ queryKey: ['classes'], queryFn: () => ask('GET', '/classes', z.array(classSummary)) }),
  class: (id: number) =>
    queryOptions({ queryKey: ['classes', id], queryFn: () => ask('GET', `/classes/${id}`, classAnswer) }),
  teachers: queryOptions({
    queryKey: ['teachers'],
    queryFn: () => ask('GET', '/teachers', z.array(z.object({ id: z.number(), name: z.string() }))),
  }),
  orders: queryOptions({ queryKey: ['orders'], queryFn: () => ask('GET', '/orders', z.array(order)) }),
  costs: queryOptions({ queryKey: ['costs'], queryFn: () => ask('GET', '/costs', costSettings) }),
  batchPrice: (id: number) =>
    queryOptions({ queryKey: ['batches', id, 'price'], queryFn: () => ask('GET', `/batches/${id}/price`, batchPrice) }),
  audit: (find: string) =>
    infiniteQueryOptions({
      queryKey: ['audit', find],
      queryFn: ({ pageParam }) => ask('GET', `/audit?${new URLSearchParams({ find, ...pageParam })}`, auditPage),
      initialPageParam: {},
      getNextPageParam: ({ entries, more }): Record<string, string> | undefined =>
        more ? { before: String(entries[entries.length - 1]?.id) } : undefined,
      placeholderData: (before) => before,
    }),
  buyList: queryOptions({ queryKey: ['buy-list'], queryFn: () => ask('GET', '/buy-list', z.array(buyLine)) }),
  packing: (id: number) =>
    queryOptions({ queryKey: ['packing', id], queryFn: () => ask('GET', `/batches/${id}/packing`, packing) }),
  standIns: queryOptions({
    queryKey: ['stand-ins'],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => ask('GET', '/stand-ins', z.array(z.string())),
  }),
  batches: queryOptions({ queryKey: ['batches'], queryFn: () => ask('GET', '/batches', z.array(batchSummary)) }),
  batch: (id: number) =>
    queryOptions({ queryKey: ['batches', id], queryFn: () => ask('GET', `/batches/${id}`, batch) }),
}
