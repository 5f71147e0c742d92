/** What a customer has told: kept as it was told, in the shop's own measures. */

import type { Customer } from '@tessellum/contract/customers'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Settings } from '@tessellum/contract/settings'
import { usualSettings } from '@tessellum/contract/usual-settings'
import type { Report } from '@tessellum/core/report/report'
import { screen, waitFor } from '@testing-library/react'
import { CustomerForm } from '../src/customers/customer-form'
import { SampleLog } from '../src/patterns/sample-log'
import { patternsRead } from './a-pattern'
import { changesIn, shopThatAnswers, show } from './on-screen'

const bela: Customer = {
  id: 12,
  name: 'Bela Moor',
  contact: '0123',
  wristMm: 148,
  neckMm: null,
  fingerMm: 54,
  leftHanded: true,
  allergies: 'nickel',
  note: '',
  addedAt: '2026-01-01T00:00:00Z',
}
const card = { ...bela, orders: [], sales: [], classes: [], owed: 0 }

const form = (customer?: Customer, settings: Settings = usualSettings) => {
  const asked = shopThatAnswers({ 'POST /api/customers': () => card, 'PUT /api/customers/12': () => card })
  const done = jest.fn()
  const page = show(<CustomerForm done={done} close={() => {}} {...(customer ? { customer } : {})} />, {
    data: [[['settings'], settings]],
  })
  return { ...page, done, asked: () => changesIn(asked) }
}
const number = (name: RegExp) => screen.getByRole<HTMLInputElement>('spinbutton', { name })

test('a name is enough; what nobody has told is not known, and not nought', async () => {
  const { person, asked, done } = form()
  await person.click(screen.getByRole('button', { name: 'Add the customer' }))
  await screen.findByText('Enter a name.')
  await person.type(screen.getByRole('textbox', { name: 'Name' }), 'Cleo Sedge')
  await person.type(number(/^Wrist/), '15.2')
  await person.click(screen.getByRole('button', { name: 'Add the customer' }))
  await waitFor(() => expect(done).toHaveBeenCalledWith(card))
  const [, body] = asked()[0] as [string, Record<string, unknown>]
  expect(body).toMatchObject({ name: 'Cleo Sedge', wristMm: 152, leftHanded: false })
  expect([body.neckMm ?? null, body.fingerMm ?? null]).toEqual([null, null])
})

test('what is changed is changed, and the rest stays as it was told', async () => {
  const { person, asked, done } = form(bela)
  expect(number(/^Wrist/).value).toBe('14.8')
  await person.clear(number(/^Wrist/))
  await person.click(screen.getByRole('checkbox', { name: 'Left-handed' }))
  await person.click(screen.getByRole('button', { name: 'Save' }))
  await waitFor(() => expect(done).toHaveBeenCalled())
  const [, body] = asked()[0] as [string, Record<string, unknown>]
  expect(body).toMatchObject({
    name: 'Bela Moor',
    contact: '0123',
    fingerMm: 54,
    leftHanded: false,
    allergies: 'nickel',
  })
  expect(body.wristMm ?? null).toBeNull()
  expect(body).not.toHaveProperty('id')
})

describe('a sample is logged', () => {
  const [, [, pattern]] = patternsRead as unknown as [unknown, [unknown, Pattern]]
  const report = { pattern: 'Windlass pendant', size: 'petite', thread: { totalMm: 2400 } } as Report
  const sample = (id: number, threadMm: number) => ({
    id,
    version: 2,
    size: 'petite',
    minutes: 90,
    threadMm,
    computedMm: 2000,
    computedMinutes: 80,
    technique: 'peyote',
    note: '',
    madeAt: '2026-03-01T09:00:00Z',
    madeBy: 'Bram',
  })
  const answer = (count: number) => ({
    samples: Array.from({ length: count }, (_, k) => sample(k, 2200)),
    technique: 'peyote',
    thread: { count, median: 1.1, least: 1.05, most: 1.2 },
    minutes: null,
    correction: count >= 3 ? { ratio: 1.1, count } : { ratio: 1, count: 0 },
  })
  const log = (changed: boolean, roles: readonly string[] = ['teacher']) => {
    const asked = shopThatAnswers({ 'POST /api/patterns/1/samples': () => answer(3) })
    const page = show(<SampleLog pattern={{ ...pattern, changed }} report={report} minutes={42} eager={false} />, {
      data: [
        [['samples', 1], answer(1)],
        [['me'], { name: 'corin', roles }],
      ],
    })
    return { ...page, asked: () => changesIn(asked) }
  }

  test.each([
    [false, 2],
    [true, null],
  ])('of the version that was made, or of none where the draft has changed (%s)', async (changed, version) => {
    const { person, asked } = log(changed)
    screen.getByText(/1 sample logged, the last \+10.0 % thread \(threads are cut by samples once there are 3\)/)
    await person.click(screen.getByRole('button', { name: 'Log a sample' }))
    expect(number(/^Minutes/).value).toBe('42')
    await person.click(screen.getByRole('button', { name: 'Log it' }))
    await screen.findByText('Say how much thread was used.')
    await person.type(number(/^Thread really used/), '221.5')
    await person.click(screen.getByRole('button', { name: 'Log it' }))
    await screen.findByText(/3 samples logged, the last \+10.0 % thread \(threads are cut \+10.0 % by 3 samples\)/)
    expect(asked()[0]?.[1]).toEqual({ version, size: 'petite', minutes: 42, threadMm: 2215, note: '' })
  })

  test('who logs none reads them', () => {
    log(false, ['counter'])
    expect(screen.queryByRole('button', { name: 'Log a sample' })).toBeNull()
  })
})
