/** A seat of a class: whose it is, what they chose, what they paid. */
import type { ClassAnswer } from '@tessellum/contract/classes'
import { screen, waitFor } from '@testing-library/react'
import dayjs from 'dayjs'
import { Seat } from '../src/diary/seat'
import { WaitingList } from '../src/diary/waiting-list'
import { changesIn, shopThatAnswers, show } from './on-screen'

const ana = {
  id: 31,
  seat: 2,
  name: 'Ana Reed',
  offer: 0,
  note: 'brings her own mat',
  contact: 'ana@shop.example',
  customerId: null,
  paid: 1000,
  absent: false,
  leftHanded: true,
  allergies: 'nickel',
}
const offered: ClassAnswer = {
  id: 6,
  title: 'First bezel',
  heldOn: dayjs().add(7, 'day').format('YYYY-MM-DD'),
  beginsAt: '10:00',
  minutes: 180,
  place: 'the long table',
  seats: 3,
  booked: 1,
  teacher: 'Corin',
  pattern: 'Windlass pendant',
  state: 'offered',
  undoable: false,
  batchId: null,
  readiness: 'unplanned',
  teacherId: 4,
  patternId: 1,
  version: 2,
  spareKits: 1,
  price: 4500,
  note: '',
  walkStep: 0,
  offers: [
    { size: 'petite', colourwayId: 1, colourwayVersion: 1, colourway: 'Lantern', kits: 1 },
    { size: 'classic', colourwayId: 1, colourwayVersion: 1, colourway: 'Lantern', kits: 0 },
  ],
  bookings: [ana],
  waiting: [],
  moreDays: [],
  plans: [],
  cost: { kit: 0, unpriced: 0, seat: 0, suggested: 0 },
}
const customer = {
  id: 12,
  name: 'Bela Moor',
  contact: '0123',
  wristMm: null,
  neckMm: null,
  fingerMm: null,
  leftHanded: false,
  allergies: '',
  note: '',
  addedAt: '2026-01-01T00:00:00Z',
}

function seatOf(
  seat: number,
  {
    of = offered,
    roles = ['owner'],
    answer,
  }: { of?: ClassAnswer; roles?: string[]; answer?: (body: unknown) => unknown } = {},
) {
  const keep = jest.fn()
  const asked = shopThatAnswers({
    [`PUT /api/classes/6/seats/${seat}`]: answer ?? (() => of),
    [`PUT /api/classes/6/seats/${seat}/mark`]: () => of,
    [`POST /api/classes/6/seats/${seat}/free`]: () => ({ ...of, bookings: [] }),
    'GET /api/customers?find=Bela': () => ({ customers: [customer], next: null }),
  })
  const booked = of.bookings.find((each) => each.seat === seat)
  const page = show(
    <table>
      <tbody>
        <Seat seat={seat} booked={booked} offered={of} mayKeep mayMark keep={keep} />
      </tbody>
    </table>,
    { data: [[['me'], { name: 'isaura', roles }]] },
  )
  return { ...page, keep, changes: () => changesIn(asked) }
}
const name = (seat: number) => screen.getByRole<HTMLInputElement>('combobox', { name: `Seat ${seat}` })

test('a name and Enter take a free seat, once; leaving the field as it was asks for nothing', async () => {
  const { person, changes, keep } = seatOf(1)
  await person.click(name(1))
  await person.tab()
  expect(changes()).toEqual([])
  await person.type(name(1), 'Cleo Sedge{Enter}')
  await waitFor(() => expect(keep).toHaveBeenCalledTimes(1))
  expect(changes()).toEqual([
    ['PUT /api/classes/6/seats/1', { name: 'Cleo Sedge', customerId: null, offer: 0, note: '', contact: '' }],
  ])
})

test('who is on record is chosen from what is typed, and is booked as themselves', async () => {
  const { person, changes, keep } = seatOf(1)
  await person.type(name(1), 'Bela')
  await person.click(await screen.findByText('Bela Moor, 0123'))
  await waitFor(() => expect(keep).toHaveBeenCalled())
  expect(changes()[0]?.[1]).toMatchObject({ name: 'Bela Moor', customerId: 12 })
})

test('another choice is kept at once, of the same booking, with its note', async () => {
  const { person, changes } = seatOf(2)
  await person.click(screen.getByRole('combobox', { name: 'Choice of seat 2' }))
  await person.click(await screen.findByText('classic, in Lantern'))
  await waitFor(() => expect(changes()).toHaveLength(1))
  expect(changes()[0]?.[1]).toEqual({
    id: 31,
    name: 'Ana Reed',
    customerId: null,
    offer: 1,
    note: 'brings her own mat',
    contact: 'ana@shop.example',
  })
})

test('what they do not bear is said beside their name; what they paid is kept in whole pence', async () => {
  const { person, changes } = seatOf(2)
  screen.getByText('left-handed; nickel')
  const paid = screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Paid for seat 2' })
  expect(paid.value).toBe('10.00')
  await person.clear(paid)
  await person.type(paid, '45{Enter}')
  await waitFor(() => expect(changes()).toHaveLength(1))
  expect(changes()[0]).toEqual(['PUT /api/classes/6/seats/2/mark', { paid: 4500, absent: false }])
  // Nobody can have stayed away from a class that is still to come.
  expect(screen.queryByRole('checkbox')).toBeNull()
})

test('a seat that somebody else was faster to take says so, and the name stays in the field', async () => {
  const { person } = seatOf(1, {
    answer: () => ({ status: 409, code: 'conflict', message: 'Seat 1 is taken.', hint: 'Choose another seat.' }),
  })
  await person.type(name(1), 'Cleo Sedge{Enter}')
  await screen.findByText(/Seat 1 is taken/)
  expect(name(1).value).toBe('Cleo Sedge')
})

describe('the waiting list', () => {
  const waiting = [
    { id: 51, name: 'Dara Fen', contact: '0456', customerId: null },
    { id: 52, name: 'Bela Moor', contact: '', customerId: 12 },
  ]
  const list = (freeSeat: number | undefined) => {
    const asked = shopThatAnswers({
      'PUT /api/classes/6/seats/3': () => offered,
      'POST /api/classes/6/waiting': () => offered,
      'POST /api/classes/6/waiting/52/leave': () => offered,
    })
    const page = show(<WaitingList offered={{ ...offered, waiting }} mayKeep keep={() => {}} freeSeat={freeSeat} />, {
      data: [[['me'], { name: 'corin', roles: ['teacher'] }]],
    })
    return { ...page, asked }
  }

  test('a free seat goes to one of them, who waits no longer', async () => {
    const { person, asked } = list(3)
    await person.click(screen.getByRole('button', { name: 'Give Dara Fen seat 3' }))
    await waitFor(() => expect(asked).toHaveLength(1))
    expect(asked[0]?.body).toEqual({ name: 'Dara Fen', contact: '0456', customerId: null, offer: 0, waitingId: 51 })
  })

  test('while none is free they are put on the list, and taken off', async () => {
    const { person, asked } = list(undefined)
    expect(screen.queryByRole('button', { name: /^Give/ })).toBeNull()
    const who = screen.getByRole<HTMLInputElement>('combobox', { name: 'Who would like a seat' })
    await person.type(who, 'Edda Mere')
    await person.type(screen.getByRole('textbox', { name: 'How to reach who would like a seat' }), '0789')
    await person.click(screen.getByRole('button', { name: 'Put on the list' }))
    await waitFor(() => expect(who.value).toBe(''))
    await person.click(screen.getByRole('button', { name: 'Take Bela Moor off the list' }))
    await waitFor(() => expect(changesIn(asked)).toHaveLength(2))
    expect(changesIn(asked)).toEqual([
      ['POST /api/classes/6/waiting', { name: 'Edda Mere', contact: '0789', customerId: null }],
      ['POST /api/classes/6/waiting/52/leave', undefined],
    ])
  })
})
