import { useQuery } from '@tanstack/react-query'
import { type ThreadSettings, usualThreadSettings } from '@tessellum/core/thread/settings'
import { useMemo } from 'react'
import { read } from '../shop/queries'

/** The shop's ways with thread, corrected by what samples of the pattern have shown. */
export function useSettings(patternId: number): ThreadSettings {
  const { data } = useQuery(read.samples(patternId))
  const { ratio = 1, count = 0 } = data?.correction ?? {}
  return useMemo(
    () => (count > 0 ? { ...usualThreadSettings, sampled: { ratio, count } } : usualThreadSettings),
    [ratio, count],
  )
}
