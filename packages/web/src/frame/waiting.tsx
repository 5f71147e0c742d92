import { useIsFetching, useIsMutating, useQuery } from '@tanstack/react-query'
import { counted } from '@tessellum/core/measure/counted'
import { useEffect, useState } from 'react'
import { call } from '../shop/api'
import styles from './waiting.module.css'

/** What is over before this needs no word. */
const soonMs = 2500

const key = ['work']

/** While something takes its time: how far it has come, or how much goes before it. */
export function Waiting() {
  const fetching = useIsFetching({ predicate: ({ queryKey }) => queryKey[0] !== key[0] })
  const busy = fetching + useIsMutating() > 0
  const [long, setLong] = useState(false)
  useEffect(() => {
    setLong(false)
    if (!busy) return
    const timer = setTimeout(() => setLong(true), soonMs)
    return () => clearTimeout(timer)
  }, [busy])
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => call('GET /api/work'),
    enabled: long,
    refetchInterval: 1500,
    staleTime: 0,
    gcTime: 0,
    retry: false,
  })
  if (!long || !data) return null
  const { ahead, done } = data
  return (
    <div className={styles.working} role="status">
      {done > 0
        ? `Working: ${Math.round(100 * done)} % is done.`
        : ahead > 0
          ? `Waiting: ${counted(ahead, 'piece')} of work before yours.`
          : 'Still working.'}
    </div>
  )
}
