import { useQuery } from '@tanstack/react-query'
import type { ThreadSettings } from '@tessellum/core/thread/settings'
import { useMemo } from 'react'
import { useShopSettings } from '../settings/use-shop-settings'
import { read } from '../shop/queries'

/** The shop's ways with thread, corrected by what samples of the pattern have shown. */
export function useSettings(patternId: number): ThreadSettings {
  const { data } = useQuery(read.samples(patternId))
  const { ratio = 1, count = 0 } = data?.correction ?? {}
  const { thread } = useShopSettings()
  return useMemo(() => ({ ...thread, sampled: { ratio, count } }), [thread, ratio, count])
}
