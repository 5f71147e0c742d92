import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useSyncExternalStore } from 'react'
import { isUnreachable } from './api'
import { read } from './queries'
import styles from './reach.module.css'

/** Says when the shop cannot be reached, keeps trying, and reads everything anew when it can. */
export function Reach() {
  const client = useQueryClient()
  const cache = client.getQueryCache()
  const away = useSyncExternalStore(
    (changed) => cache.subscribe(changed),
    () =>
      cache
        .getAll()
        .some(
          (query) =>
            isUnreachable(query.state.error) ||
            (query.state.fetchFailureCount > 0 && isUnreachable(query.state.fetchFailureReason)),
        ),
  )
  const was = useRef(false)
  const { data: health } = useQuery({ ...read.health, enabled: away, refetchInterval: 2000 })
  useEffect(() => {
    if (away) was.current = true
    if (health?.ok && was.current) {
      was.current = false
      client.removeQueries(read.health)
      void client.invalidateQueries()
    }
  }, [away, health, client])
  if (!away) return null
  return (
    <div role="alert" className={`notice trouble ${styles.strip}`}>
      <strong>The shop’s records cannot be reached.</strong> What you typed is kept on this page. Retrying
      automatically.
    </div>
  )
}
