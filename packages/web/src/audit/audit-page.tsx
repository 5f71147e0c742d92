import { useInfiniteQuery } from '@tanstack/react-query'
import { Button, Input } from 'antd'
import dayjs from 'dayjs'
import { useDeferredValue, useState } from 'react'
import { Link } from 'react-router'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { read } from '../shop/queries'
import styles from './audit.module.css'

/** What people did, day by day, newest first: as it would be told. */
export function AuditPage() {
  usePageTitle('Activity')
  const [find, setFind] = useState('')
  const { data, error, hasNextPage, fetchNextPage, isFetchingNextPage } = useInfiniteQuery(
    read.audit(useDeferredValue(find)),
  )
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Reading back" />
  const entries = data.pages.flatMap((page) => page.entries)
  const days = [...new Set(entries.map(({ at }) => dayjs(at).format('dddd, D MMMM YYYY')))]
  return (
    <div className="page stack">
      <PageHead title="Activity">
        <Input.Search
          aria-label="Find in it"
          placeholder="A person, a batch, a lot"
          allowClear
          className={styles.find ?? ''}
          onChange={({ target }) => setFind(target.value.trim())}
        />
      </PageHead>
      {entries.length === 0 && <div className="empty sheet">No matching activity.</div>}
      {days.map((day) => (
        <section key={day} aria-label={day}>
          <h2 className={styles.heading}>{day}</h2>
          <ul className={`rows ${styles.entries}`}>
            {entries
              .filter(({ at }) => dayjs(at).format('dddd, D MMMM YYYY') === day)
              .map(({ id, at, by, what, page }) => (
                <li key={id}>
                  <span className="quiet figures">{dayjs(at).format('HH:mm')}</span>
                  <span>
                    <strong>{by}</strong> {page ? <Link to={page}>{what}</Link> : what}
                  </span>
                </li>
              ))}
          </ul>
        </section>
      ))}
      {hasNextPage && (
        <div className={styles.more}>
          <Button onClick={() => void fetchNextPage()} loading={isFetchingNextPage}>
            Older entries
          </Button>
        </div>
      )}
    </div>
  )
}
