import { QueryClient, queryOptions } from '@tanstack/react-query'
import { batch, batchSummary } from '@tessellum/contract/batches'
import { buyLine } from '@tessellum/contract/buying'
import { colourway } from '@tessellum/contract/colourways'
import { edition } from '@tessellum/contract/editions'
import { packing } from '@tessellum/contract/packing'
import { carrier, pattern, patternSummary, versionText } from '@tessellum/contract/patterns'
import { me } from '@tessellum/contract/people'
import { samples } from '@tessellum/contract/samples'
import { item, itemStory } from '@tessellum/contract/stock'
import { z } from 'zod'
import { ask, isUnreachable, keepToken, ShopError } from './api'

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
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
      if (found) keepToken(found.csrfToken)
      return found
    },
  }),
  patterns: queryOptions({ queryKey: ['patterns'], queryFn: () => ask('GET', '/patterns', z.array(patternSummary)) }),
  pattern: (id: number) =>
    queryOptions({ queryKey: ['patterns', id], queryFn: () => ask('GET', `/patterns/${id}`, pattern) }),
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
