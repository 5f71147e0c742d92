import { useQuery } from '@tanstack/react-query'
import { counted } from '@tessellum/core/measure/counted'
import { Button } from 'antd'
import dayjs from 'dayjs'
import { Link, useParams } from 'react-router'
import { FigureTable } from '../frame/figure-table'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { addressOf } from '../shop/api'
import { read } from '../shop/queries'
import styles from './class-sheet.module.css'

/** What the teacher holds: seats with their choices and a place to tick, the hours, and each seat's own pattern to print. */
export function ClassSheetPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.class(id))
  usePageTitle(data ? `${data.title}, teacher’s sheet` : 'Teacher’s sheet')
  if (error && !data) return <Trouble error={error} />
  if (!data) return <PageLoading what="Fetching the class" />
  const { offers, bookings, plans } = data
  const plan = plans.find(({ pace }) => pace === 'beginner')
  const wording = (offer: number) => [offers[offer]?.size, offers[offer]?.colourway].filter(Boolean).join(', in ')
  const paper = (seat: (typeof bookings)[number]) => {
    const chosen = offers[seat.offer]
    const query = {
      version: data.version,
      sheet: 'class',
      seat: `${seat.seat}, ${seat.name}`,
      chosen: wording(seat.offer),
      ...(chosen ? { colourway: chosen.colourwayId, colourwayVersion: chosen.colourwayVersion } : {}),
      ...(chosen?.size ? { size: chosen.size } : {}),
    } as const
    return addressOf('GET /api/patterns/:id/document.pdf', { params: { id: data.patternId }, query })
  }
  return (
    <div className="page stack">
      <PageHead
        title={data.title}
        under={
          <span>
            {dayjs(data.heldOn).format('dddd, D MMMM YYYY')}, {data.beginsAt}, {data.minutes} minutes, {data.place};{' '}
            {data.teacher}
          </span>
        }
      >
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
        <Link className="no-print" to={`/diary/classes/${id}`}>
          The class
        </Link>
      </PageHead>
      <p>
        {data.pattern}, version {data.version}. Kits: {offers.map((each, i) => `${each.kits} ${wording(i)}`).join(', ')}
        , {data.spareKits} of them spare.
      </p>
      {data.note && <p className="notice">{data.note}</p>}
      <FigureTable words sheet>
        <thead>
          <tr>
            <th scope="col">Seat</th>
            <th scope="col">Name</th>
            <th scope="col">Has chosen</th>
            <th scope="col">Bag</th>
            <th scope="col">Note</th>
            <td className="no-print" />
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: data.seats }, (_, i) => {
            const booked = bookings.find(({ seat }) => seat === i + 1)
            return (
              <tr key={i}>
                <th scope="row" className="figures">
                  {i + 1}
                </th>
                <td>{booked?.name ?? ''}</td>
                <td>{booked ? wording(booked.offer) : ''}</td>
                <td>
                  <span className={styles.tick} aria-hidden="true" />
                </td>
                <td>{booked?.note}</td>
                <td className="no-print">
                  {booked && (
                    <a
                      href={paper(booked)}
                      target="_blank"
                      rel="noreferrer"
                      aria-label={`Pattern for seat ${i + 1}, ${booked.name}`}
                    >
                      Pattern
                    </a>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </FigureTable>
      {plan && (
        <section aria-label="Hours">
          <h2>Hours, for beginners</h2>
          <FigureTable words>
            <tbody>
              {plan.parts.map((part, i) => (
                <tr key={i}>
                  <th scope="row">{part.name || 'the piece'}</th>
                  <td>
                    {part.from === undefined
                      ? 'homework'
                      : `from ${dayjs(`2000-01-01T${data.beginsAt}`).add(part.from, 'minute').format('HH:mm')}`}
                  </td>
                  <td>{counted(part.minutes, 'minute')}</td>
                </tr>
              ))}
            </tbody>
          </FigureTable>
        </section>
      )}
    </div>
  )
}
