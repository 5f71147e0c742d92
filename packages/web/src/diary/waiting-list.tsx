import type { BookSeat, WaitFor } from '@tessellum/contract/classes'
import { Button, Input } from 'antd'
import { useState } from 'react'
import { CustomerField, nobody } from '../customers/customer-field'
import { ErrorNotice } from '../frame/error-notice'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import type { SeatsProps } from './seat'

interface WaitingListProps extends SeatsProps {
  readonly freeSeat: number | undefined
}

/** Who would like a seat, in the order in which they asked; a seat that is free goes to one of them at a click. */
export function WaitingList({ offered, mayKeep, keep, freeSeat }: WaitingListProps) {
  const [who, setWho] = useState(nobody)
  const [contact, setContact] = useState('')
  const { id, waiting } = offered
  const stale = ['diary', 'bench', 'customers']
  const of = `class ${id}`
  const wait = useIdempotentMutation(
    (body: WaitFor) => call('POST /api/classes/:id/waiting', { params: { id }, body }),
    {
      of,
      stale,
      after: (answer) => {
        keep(answer)
        setWho(nobody)
        setContact('')
      },
    },
  )
  const leave = useIdempotentMutation(
    (waitingId: number) => call('POST /api/classes/:id/waiting/:waitingId/leave', { params: { id, waitingId } }),
    { of, stale, after: keep },
  )
  const seat = useIdempotentMutation(
    ({ at, body }: { at: number; body: BookSeat }) =>
      call('PUT /api/classes/:id/seats/:seat', { params: { id, seat: at }, body }),
    { of, stale, after: keep },
  )
  if (waiting.length === 0 && (!mayKeep || freeSeat !== undefined)) return null
  return (
    <section className="pad" aria-label="Waiting list">
      <h3>Waiting for a seat</h3>
      <ol>
        {waiting.map(({ id: waitingId, ...each }) => (
          <li key={waitingId}>
            {each.name} {each.contact && <span className="quiet">{each.contact}</span>}{' '}
            {mayKeep && freeSeat !== undefined && (
              <Button
                size="small"
                type="primary"
                loading={seat.busy}
                onClick={() => seat.run({ at: freeSeat, body: { ...each, waitingId, offer: 0 } })}
              >
                Give {each.name} seat {freeSeat}
              </Button>
            )}{' '}
            {mayKeep && (
              <Button
                size="small"
                type="link"
                onClick={() => leave.run(waitingId)}
                aria-label={`Take ${each.name} off the list`}
              >
                Remove
              </Button>
            )}
          </li>
        ))}
      </ol>
      {mayKeep && (
        <div className="hands">
          <CustomerField label="Who would like a seat" placeholder="name" value={who} onChange={setWho} />
          <Input
            aria-label="How to reach who would like a seat"
            placeholder="how to reach them"
            maxLength={200}
            value={contact}
            onChange={({ target }) => setContact(target.value)}
          />
          <Button
            disabled={who.name.trim() === ''}
            loading={wait.busy}
            onClick={() => wait.run({ name: who.name, contact, customerId: who.id })}
          >
            Put on the list
          </Button>
        </div>
      )}
      <ErrorNotice error={wait.refused ?? leave.refused ?? seat.refused} />
    </section>
  )
}
