import { LeftOutlined, RightOutlined } from '@ant-design/icons'
import { useQuery } from '@tanstack/react-query'
import type { Diary } from '@tessellum/contract/diary'
import { Button } from 'antd'
import { scaleUtc } from 'd3-scale'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link } from 'react-router'
import chartStyles from '../frame/chart.module.css'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { RowDay, RowLink } from '../frame/row-link'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useToday } from '../settings/use-today'
import { read } from '../shop/queries'
import styles from './diary-page.module.css'
import { ReadinessMark } from './readiness'

const weeks = 8

/** Promises against what they still need, on a line of days. */
export function DiaryPage() {
  usePageTitle('Diary')
  const mayTeach = useMay('classes.keep')
  const mayKnow = useMay('customers.read')
  const mayCosts = useMay('batches.read')
  const today = useToday()
  const [start, setStart] = useState(() => today.subtract(7, 'day').format('YYYY-MM-DD'))
  const end = dayjs(start)
    .add(weeks * 7, 'day')
    .format('YYYY-MM-DD')
  const { data, error } = useQuery(read.diary(start, end))
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Opening the diary" />
  const move = (by: number) =>
    setStart(
      dayjs(start)
        .add(by * 28, 'day')
        .format('YYYY-MM-DD'),
    )
  return (
    <div className="page stack">
      <PageHead
        title="Diary"
        beside={
          <>
            <Button aria-label="Four weeks back" icon={<LeftOutlined />} onClick={() => move(-1)} />
            <span className="figures">
              {dayjs(start).format('D MMM')} to {dayjs(end).format('D MMM YYYY')}
            </span>
            <Button aria-label="Four weeks on" icon={<RightOutlined />} onClick={() => move(1)} />
          </>
        }
      >
        <a href={`/api/diary.ics?from=${start}&to=${end}`} download>
          As a calendar
        </a>
        {mayCosts && <Link to="/settings/costs">Costs</Link>}
        <Link to="/diary/orders">Orders</Link>
        {mayKnow && <Link to="/customers">Customers</Link>}
        {mayTeach && (
          <Link to="/diary/classes/new">
            <Button type="primary">Offer a class</Button>
          </Link>
        )}
      </PageHead>
      {data.length > 0 && <TimeLine diary={data} start={start} end={end} />}
      {data.length === 0 ? (
        <div className="empty sheet">
          <h2>Nothing is promised in these weeks</h2>
          <p>Offer a class, take an order or plan a batch.</p>
        </div>
      ) : (
        <div className="rows">
          {data.map((each) => (
            <RowLink key={`${each.kind} ${each.id}`} to={each.page}>
              <RowDay on={each.on} weekday />
              <span>
                <strong>{each.title}</strong>
                <br />
                <span className="quiet">
                  {each.kind}, {each.detail}
                </span>
              </span>
              <span className="figures quiet">
                {each.buyBy && <span className="trouble">buy by {dayjs(each.buyBy).format('D MMM')}</span>}
                {!each.buyBy && each.packBy && `pack by ${dayjs(each.packBy).format('D MMM')}`}
              </span>
              <span>{each.kind !== 'delivery' && <ReadinessMark readiness={each.readiness} />}</span>
              <RightOutlined aria-hidden />
            </RowLink>
          ))}
        </div>
      )}
    </div>
  )
}

const [width, rowHeight] = [1180, 26]
/** Room for half of a day at each end. */
const inside = { left: 28, right: 28, top: 30 }
const dateOf = (day: string) => new Date(`${day}T00:00:00Z`)

/** A row for each promise: from the day to buy by, over the day to pack by, to its day. */
function TimeLine({ diary, start, end }: { diary: Diary; start: string; end: string }) {
  const x = scaleUtc([dateOf(start), dateOf(end)], [inside.left, width - inside.right]).clamp(true)
  const height = inside.top + diary.length * rowHeight + 8
  const day = useToday().format('YYYY-MM-DD')
  const today = x(dateOf(day))
  return (
    <figure className={`sheet ${chartStyles.chart}`}>
      <svg viewBox={`0 0 ${width} ${height}`} aria-hidden="true" className={styles.timeLine}>
        {x.ticks(weeks).map((tick) => (
          <g key={tick.getTime()}>
            <line x1={x(tick)} x2={x(tick)} y1={inside.top - 8} y2={height} stroke="var(--line)" />
            <text x={x(tick)} y={16} textAnchor="middle">
              {dayjs(tick).format('D MMM')}
            </text>
          </g>
        ))}
        <line x1={today} x2={today} y1={inside.top - 8} y2={height} stroke="var(--ink)" strokeWidth="1.2" />
        {diary.map((each, i) => {
          const y = inside.top + i * rowHeight + rowHeight / 2
          const at = x(dateOf(each.on))
          const from = each.buyBy ? x(dateOf(each.buyBy)) : each.packBy ? x(dateOf(each.packBy)) : at
          const tone =
            each.readiness === 'short'
              ? 'var(--brick)'
              : each.readiness === 'ready'
                ? 'var(--green)'
                : each.readiness === 'over'
                  ? 'var(--quiet)'
                  : 'var(--brass)'
          const left = at > width * 0.6
          return (
            <Link key={`${each.kind} ${each.id}`} to={each.page} tabIndex={-1}>
              <line
                x1={from}
                x2={at}
                y1={y}
                y2={y}
                stroke={tone}
                strokeWidth="6"
                strokeLinecap="round"
                opacity="0.35"
              />
              {each.kind === 'class' ? (
                <circle cx={at} cy={y} r="6" fill={tone} />
              ) : each.kind === 'delivery' ? (
                <path d={`M${at - 6} ${y - 5}h12l-6 10z`} fill={tone} />
              ) : (
                <rect x={at - 5} y={y - 5} width="10" height="10" rx={each.kind === 'order' ? 5 : 1} fill={tone} />
              )}
              <text
                x={left ? Math.min(from, at) - 12 : at + 12}
                y={y + 4}
                textAnchor={left ? 'end' : 'start'}
                className={styles.word}
              >
                {each.title}
              </text>
            </Link>
          )
        })}
      </svg>
      <figcaption className="quiet">
        From the day to buy or pack by to the day it is promised. Discs are classes and orders, squares batches,
        triangles deliveries; green is ready, brass on the way, brick short, grey over.
      </figcaption>
    </figure>
  )
}
