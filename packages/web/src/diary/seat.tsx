import type { BookSeat, ClassAnswer, MarkSeat } from '@tessellum/contract/classes'
import { Button, Checkbox, Input, Select } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { Link } from 'react-router'
import { CustomerField, type Who } from '../customers/customer-field'
import { ErrorNotice } from '../frame/error-notice'
import { NumberField } from '../frame/number-field'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { useToday } from '../settings/use-today'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './seat.module.css'

export interface SeatsProps {
  readonly offered: ClassAnswer
  readonly mayKeep: boolean
  readonly keep: (answer: ClassAnswer) => void
}

interface SeatProps extends SeatsProps {
  readonly seat: number
  readonly booked: ClassAnswer['bookings'][number] | undefined
  /** Of a class that was taught, too. */
  readonly mayMark: boolean
}

export const choiceName = ({ size, colourway }: ClassAnswer['offers'][number]) =>
  [size, colourway].filter(Boolean).join(', in ')

/** One seat: Enter keeps the name; another choice is kept at once. */
export function Seat({ seat, booked, offered, mayKeep, mayMark, keep }: SeatProps) {
  const money = useMoney()
  const today = useToday()
  const mayKnow = useMay('customers.read')
  const [who, setWho] = useState<Who>({ name: booked?.name ?? '', id: booked?.customerId ?? null })
  const [contact, setContact] = useState(booked?.contact ?? '')
  const [paid, setPaid] = useState<number | null>((booked?.paid ?? 0) / 100)
  const changes = { of: `class ${offered.id}`, stale: ['diary', 'bench', 'customers'], after: keep }
  const params = { id: offered.id, seat }
  const book = useIdempotentMutation((body: BookSeat) => call('PUT /api/classes/:id/seats/:seat', { params, body }), {
    ...changes,
  })
  const mark = useIdempotentMutation(
    (body: MarkSeat) => call('PUT /api/classes/:id/seats/:seat/mark', { params, body }),
    changes,
  )
  const free = useIdempotentMutation((_: null) => call('POST /api/classes/:id/seats/:seat/free', { params }), {
    ...changes,
  })
  const save = (offer: number, { name, id }: Who = who) => {
    const same =
      booked && name === booked.name && id === booked.customerId && offer === booked.offer && contact === booked.contact
    if (name.trim() === '' || same) return
    book.run({ ...(booked ? { id: booked.id } : {}), name, customerId: id, offer, note: booked?.note ?? '', contact })
  }
  const offer = booked?.offer ?? 0
  const pay = () => {
    const minor = Math.round((paid ?? 0) * 100)
    if (booked && minor !== booked.paid) mark.run({ paid: minor, absent: booked.absent })
  }
  const hasCome = !dayjs(offered.heldOn).isAfter(today, 'day')
  const toKnow = booked ? [booked.leftHanded && 'left-handed', booked.allergies].filter(Boolean).join('; ') : ''
  return (
    <tr>
      <th scope="row" className="figures">
        {seat}
      </th>
      <td>
        {mayKeep ? (
          <CustomerField
            label={`Seat ${seat}`}
            placeholder="free"
            value={who}
            onChange={(next) => {
              setWho(next)
              if (next.id !== null) save(offer, next)
            }}
            onLeave={() => save(offer)}
          />
        ) : (
          (booked?.name ?? <span className="quiet">free</span>)
        )}
        {booked && (
          <div className={styles.about}>
            {booked.customerId !== null && mayKnow ? (
              <Link to={`/customers/${booked.customerId}`}>{booked.contact || 'their record'}</Link>
            ) : mayKeep && booked.customerId === null ? (
              <Input
                size="small"
                aria-label={`How to reach seat ${seat}`}
                placeholder="how to reach them"
                maxLength={200}
                value={contact}
                onChange={({ target }) => setContact(target.value)}
                onBlur={() => save(offer)}
                onPressEnter={() => save(offer)}
              />
            ) : (
              <span className="quiet">{booked.contact}</span>
            )}
            {toKnow && <strong>{toKnow}</strong>}
          </div>
        )}
        <ErrorNotice error={book.refused ?? free.refused ?? mark.refused} />
      </td>
      <td>
        {mayKeep && booked ? (
          <Select
            aria-label={`Choice of seat ${seat}`}
            className={styles.choice ?? ''}
            value={offer}
            onChange={(next) => save(next)}
            options={offered.offers.map((each, i) => ({ value: i, label: choiceName(each) }))}
          />
        ) : (
          booked && offered.offers[offer] && choiceName(offered.offers[offer])
        )}
      </td>
      <td>
        {booked && mayMark && (
          <NumberField
            aria-label={`Paid for seat ${seat}`}
            className={styles.figure ?? ''}
            min={0}
            step={0.5}
            precision={2}
            prefix={money.sign}
            value={paid}
            onChange={setPaid}
            onBlur={pay}
            onPressEnter={pay}
          />
        )}
        {booked && !mayMark && <span className="figures">{money.say(booked.paid)} paid</span>}
      </td>
      <td>
        {booked && mayMark && hasCome && (
          <Checkbox
            checked={booked.absent}
            onChange={({ target }) => mark.run({ paid: booked.paid, absent: target.checked })}
          >
            <span className="visually-hidden">Seat {seat} </span>did not come
          </Checkbox>
        )}
        {mayKeep && booked && (
          <Button
            size="small"
            type="link"
            onClick={() => free.run(null)}
            loading={free.busy}
            aria-label={`Free seat ${seat}`}
          >
            Free
          </Button>
        )}
      </td>
    </tr>
  )
}
