import { RightOutlined } from '@ant-design/icons'
import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import type { Bench } from '@tessellum/contract/diary'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { RowDay, RowLink } from '../frame/row-link'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useToday } from '../settings/use-today'
import { read } from '../shop/queries'
import styles from './bench.module.css'
import { FetchPanel } from './fetch-panel'

/** The first screen of the morning: what is to be done next, each a line that opens where it is done. */
export function BenchPage() {
  usePageTitle('Bench')
  const { data, error } = useQuery(read.bench)
  const day = useToday()
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Loading the bench" />
  const today = day.format('YYYY-MM-DD')
  const week = day.add(7, 'day').format('YYYY-MM-DD')
  const parts = [
    { title: 'Today and overdue', of: data.filter(({ by }) => by !== null && by <= today) },
    { title: 'This week', of: data.filter(({ by }) => by !== null && by > today && by <= week) },
    { title: 'After that', of: data.filter(({ by }) => by !== null && by > week) },
    { title: 'When there is time', of: data.filter(({ by }) => by === null) },
  ]
  return (
    <div className="page stack">
      <PageHead title="Bench" beside={<span className="quiet">{day.format('dddd, D MMMM YYYY')}</span>} />
      {data.length === 0 && <Idle />}
      <div className={styles.columns}>
        <div className="stack">
          {parts.map(
            ({ title, of }) =>
              of.length > 0 && (
                <section key={title} aria-label={title}>
                  <h2 className={styles.heading}>{title}</h2>
                  <div className="rows">
                    {of.map((each) => (
                      <Line key={`${each.text} ${each.page}`} line={each} late={each.by !== null && each.by < today} />
                    ))}
                  </div>
                </section>
              ),
          )}
        </div>
        <FetchPanel />
      </div>
    </div>
  )
}

/** Nothing is to be done: in a shop that has just been begun, everything is. */
function Idle() {
  const { data: shelf } = useInfiniteQuery(read.shelf({ find: '', show: 'all', by: 'colour' }))
  const mayKeep = useMay('stock.keep')
  const mayWrite = useMay('patterns.write')
  const mayPeople = useMay('people.keep')
  if (shelf?.pages[0]?.total !== 0)
    return (
      <div className="empty sheet">
        <h2>Nothing to do</h2>
        <p>Every kit is packed and nothing runs low.</p>
      </div>
    )
  const steps = [
    ...(mayKeep
      ? [{ to: '/stock/files', what: 'Bring in your stock', how: 'from a spreadsheet, or item by item' }]
      : []),
    ...(mayWrite ? [{ to: '/patterns', what: 'Begin a pattern', how: 'round a stone, a band, a rope, a flower' }] : []),
    ...(mayPeople ? [{ to: '/people', what: 'Add the others', how: 'each gets a link to choose a password' }] : []),
    { to: '/settings', what: 'Check the shop’s settings', how: 'thread, spares, money, documents' },
  ]
  return (
    <section aria-label="Getting started">
      <h2 className={styles.heading}>Getting started</h2>
      <div className="rows">
        {steps.map(({ to, what, how }) => (
          <RowLink key={to} className={styles.row} to={to}>
            <span />
            <span>
              <strong>{what}</strong>
              <br />
              <span className="quiet">{how}</span>
            </span>
            <RightOutlined aria-hidden="true" />
          </RowLink>
        ))}
      </div>
    </section>
  )
}

const Line = ({ line: { text, detail, by, page }, late }: { line: Bench[number]; late: boolean }) => (
  <RowLink className={styles.row} to={page}>
    {by === null ? <span /> : <RowDay on={by}>{late && <strong className="trouble"> late</strong>}</RowDay>}
    <span>
      <strong>{text}</strong>
      {detail && <span className="quiet">, {detail}</span>}
    </span>
    <RightOutlined aria-hidden />
  </RowLink>
)
