import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { ClassAnswer } from '@tessellum/contract/classes'
import { counted } from '@tessellum/core/measure/counted'
import type { Pace } from '@tessellum/core/teach/time-plan'
import { Button, Segmented } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { AskFirst } from '../frame/ask-first'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import sideBySideStyles from '../frame/side-by-side.module.css'
import { StateTag } from '../frame/state-tag'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { useToday } from '../settings/use-today'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { ChangeClass } from './class-form'
import classPageStyles from './class-page.module.css'
import { ReadinessMark } from './readiness'
import { choiceName, Seat, type SeatsProps } from './seat'
import { WaitingList } from './waiting-list'

export function ClassPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.class(id))
  usePageTitle(data?.title ?? 'Class')
  if (error && !data) return <Trouble error={error} />
  return data ? <Offered offered={data} /> : <PageLoading what="Fetching the class" />
}

const stale = ['classes', 'diary', 'bench', 'batches', 'stock', 'buy-list']
const done = {
  taught: 'Taught: each seat has its kit.',
  cancel: 'Called off.',
  reopen: 'Open again; its kits are as they were, as far as they are still there.',
}

/** A class: who sits where with what, whether its kits are ready, whether it fits its hours, what a seat costs. */
function Offered({ offered }: { offered: ClassAnswer }) {
  const money = useMoney()
  const today = useToday()
  const client = useQueryClient()
  const mayKeep = useMay('classes.keep')
  const mayPlan = useMay('batches.plan')
  const mayReserve = useMay('batches.reserve')
  const [changing, setChanging] = useState(false)
  const [toEmpty, setToEmpty] = useState<readonly string[]>([])
  const { id, state, readiness, batchId, offers, cost } = offered
  const open = state === 'offered'
  const keep = (answer: ClassAnswer) => client.setQueryData(read.class(id).queryKey, answer)
  const act = useIdempotentMutation(
    (what: 'taught' | 'cancel' | 'reopen') => call(`POST /api/classes/:id/${what}`, { params: { id } }),
    {
      of: `class ${id}`,
      stale,
      after: keep,
      said: (_, what) => done[what],
      undo: ({ undoable }, what) =>
        undoable && what !== 'reopen' ? () => call('POST /api/classes/:id/reopen', { params: { id } }) : undefined,
    },
  )
  const plan = useIdempotentMutation((_: null) => call('POST /api/classes/:id/kits', { params: { id } }), {
    of: `class ${id}`,
    stale,
    after: ({ toEmpty: bags, ...answer }) => {
      keep(answer)
      setToEmpty(bags)
    },
    said: 'Batch updated to match the bookings.',
  })
  const kits = offers.reduce((sum, each) => sum + each.kits, 0)
  return (
    <div className="page stack">
      <PageHead
        title={offered.title}
        under={
          <span className="quiet">
            {dayjs(offered.heldOn).format('dddd, D MMMM YYYY')}, {offered.beginsAt}, {offered.minutes} minutes,{' '}
            {offered.place}; {offered.teacher}
            {offered.moreDays.length > 0 &&
              `; and ${offered.moreDays.map((each) => `${dayjs(each.heldOn).format('D MMMM')}, ${each.beginsAt}`).join('; ')}`}
          </span>
        }
        beside={
          open ? (
            <ReadinessMark readiness={readiness} />
          ) : (
            <StateTag look="over">{state === 'taught' ? 'taught' : 'called off'}</StateTag>
          )
        }
      >
        {open && mayKeep && <Button onClick={() => setChanging(true)}>Change</Button>}
        {open && mayKeep && (
          <AskFirst
            title={`Was ${offered.title} taught?`}
            follows={`${dayjs(offered.heldOn).isAfter(today, 'day') ? `It is planned for ${dayjs(offered.heldOn).format('D MMMM')}. ` : ''}Each seat has its kit from the shelf then, and the class is closed; for a day it can be opened again.`}
            ok="Mark as taught"
            run={() => act.run('taught')}
          >
            <Button loading={act.busy && act.doing === 'taught'}>Taught</Button>
          </AskFirst>
        )}
        {open && mayKeep && (
          <AskFirst
            title="Call off this class?"
            follows={
              mayReserve
                ? 'What its kits hold is given back to the shelf. For a day it can be offered again.'
                : 'Its kits stay reserved until somebody who reserves kits gives them back. For a day it can be offered again.'
            }
            ok="Call the class off"
            run={() => act.run('cancel')}
          >
            <Button danger loading={act.busy && act.doing === 'cancel'}>
              Call off
            </Button>
          </AskFirst>
        )}
        {offered.undoable && mayKeep && (
          <Button onClick={() => act.run('reopen')} loading={act.busy && act.doing === 'reopen'}>
            {state === 'taught' ? 'Reopen: it was not taught' : 'Offer it again'}
          </Button>
        )}
        <Link to="/diary">The diary</Link>
      </PageHead>
      {changing && <ChangeClass offered={offered} close={() => setChanging(false)} />}
      <ErrorNotice error={act.refused ?? plan.refused} />
      {toEmpty.length > 0 && (
        <div className="notice trouble" role="status">
          Put back into their tubes: {toEmpty.join('; ')}
        </div>
      )}
      {offered.note && <p className="notice">{offered.note}</p>}
      <div className="sheet pad hands">
        <strong>{offered.pattern}</strong>
        <span className="quiet">version {offered.version}</span>
        <Link
          to={`/patterns/${offered.patternId}/walk?class=${id}${offers[0]?.size ? `&size=${offers[0].size}` : ''}&colourway=${offers[0]?.colourwayId ?? ''}`}
        >
          Walk through it, from where the class stands
        </Link>
        <Link to={`/diary/classes/${id}/sheet`}>Teacher’s sheet</Link>
        <a href={`/api/classes/${id}/labels.pdf`} target="_blank" rel="noreferrer">
          Labels for the seats
        </a>
        <span className={classPageStyles.grow} />
        {batchId !== null && <Link to={`/kits/${batchId}`}>Its batch</Link>}
        {open && mayPlan && (
          <Button
            type={readiness === 'unplanned' || readiness === 'to change' ? 'primary' : 'default'}
            onClick={() => plan.run(null)}
            loading={plan.busy}
          >
            {batchId === null ? `Plan ${counted(kits, 'kit')}` : 'Update the batch to match the bookings'}
          </Button>
        )}
      </div>
      <div className={sideBySideStyles.two}>
        <Seats offered={offered} mayKeep={open && mayKeep} mayMark={mayKeep && state !== 'cancelled'} keep={keep} />
        <div className="stack">
          <Hours offered={offered} />
          <section className="sheet pad" aria-label="What a seat costs">
            <h2>What a seat costs</h2>
            <FigureTable>
              <tbody>
                <tr>
                  <th scope="row">one kit</th>
                  <td>{money.say(cost.kit)}</td>
                </tr>
                <tr>
                  <th scope="row">a seat, with its share of spare kits and teaching</th>
                  <td>{money.say(cost.seat)}</td>
                </tr>
                <tr>
                  <th scope="row">suggested price (keeps your margin)</th>
                  <td>
                    <strong>{money.say(cost.suggested)}</strong>
                  </td>
                </tr>
                <tr>
                  <th scope="row">asked</th>
                  <td className={offered.price < cost.seat ? 'trouble' : ''}>
                    {money.say(offered.price)}
                    {offered.price < cost.seat && ', less than it costs'}
                  </td>
                </tr>
              </tbody>
            </FigureTable>
            {cost.unpriced > 0 && (
              <p className="trouble">
                {counted(cost.unpriced, 'item has', 'items have')} no price, and {cost.unpriced === 1 ? 'is' : 'are'}{' '}
                left out.
              </p>
            )}
          </section>
        </div>
      </div>
    </div>
  )
}

const paceWords: Readonly<Record<Pace, string>> = {
  practised: 'practised hands',
  easy: 'an easy pace',
  beginner: 'beginners',
}

/** The pattern against the class's hours: what fits, and what is homework. */
function Hours({ offered }: { offered: ClassAnswer }) {
  const [pace, setPace] = useState<Pace>('beginner')
  const plan = offered.plans.find((each) => each.pace === pace)
  if (!plan) return null
  const width = 100 / Math.max(offered.minutes, plan.needed)
  return (
    <section className="sheet pad" aria-label="Its hours">
      <h2>Its hours</h2>
      <Segmented
        className={classPageStyles.pace ?? ''}
        aria-label="Pace"
        value={pace}
        onChange={setPace}
        options={offered.plans.map((each) => ({ value: each.pace, label: paceWords[each.pace] }))}
      />
      <p className={plan.left < 0 ? 'trouble' : 'quiet'} role="status">
        {plan.left < 0
          ? `${counted(-plan.left, 'minute')} more than the class has.`
          : `${counted(plan.left, 'minute')} to spare.`}
      </p>
      <div className={classPageStyles.hours} aria-hidden="true">
        <span style={{ width: `${plan.welcome * width}%` }} className={classPageStyles.welcome} />
        {plan.parts.map((part, i) => (
          <span
            key={i}
            style={{ width: `${part.minutes * width}%` }}
            className={part.fits < 1 ? classPageStyles.beyond : ''}
          />
        ))}
        <i style={{ left: `${offered.minutes * width}%` }} />
      </div>
      <FigureTable>
        <tbody>
          <tr>
            <th scope="row">coming in, thread cut</th>
            <td>{plan.welcome} min</td>
            <td />
          </tr>
          {plan.parts.map((part, i) => (
            <tr key={i}>
              <th scope="row">{part.name || 'the piece'}</th>
              <td>{part.minutes} min</td>
              <td className={part.fits < 1 ? 'trouble' : ''}>
                {part.fits >= 1
                  ? `from ${part.from} min`
                  : part.from === undefined
                    ? 'homework'
                    : `${Math.round(part.fits * 100)} % of it`}
              </td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
    </section>
  )
}

function Seats({ offered, mayKeep, mayMark, keep }: SeatsProps & { readonly mayMark: boolean }) {
  const { seats, bookings, offers } = offered
  const firstFree = Array.from({ length: seats }, (_, i) => i + 1).find(
    (seat) => !bookings.some((each) => each.seat === seat),
  )
  return (
    <section className="rows" aria-label="Seats">
      <div className="panel-head">
        <h2>Seats</h2>
        <span className="spacer" />
        <span className="figures quiet">
          {bookings.length} of {seats} taken; {offers.map((each) => `${each.kits} ${choiceName(each)}`).join(', ')}
        </span>
      </div>
      <FigureTable words>
        <thead>
          <tr>
            <th scope="col">Seat</th>
            <th scope="col">Who</th>
            <th scope="col">Makes</th>
            <th scope="col">Paid</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: seats }, (_, i) => {
            const booked = bookings.find(({ seat }) => seat === i + 1)
            return (
              <Seat
                key={`${i} ${booked?.id} ${booked?.offer} ${booked?.customerId} ${booked?.paid}`}
                seat={i + 1}
                booked={booked}
                offered={offered}
                mayKeep={mayKeep}
                mayMark={mayMark}
                keep={keep}
              />
            )
          })}
        </tbody>
      </FigureTable>
      <WaitingList offered={offered} mayKeep={mayKeep} keep={keep} freeSeat={firstFree} />
    </section>
  )
}
