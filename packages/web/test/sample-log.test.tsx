/** What a sample really took is logged against what was computed, and the page says what that does to the plan. */
import type { Pattern } from '@tessellum/contract/patterns'
import type { Sample, Samples } from '@tessellum/contract/samples'
import type { Report } from '@tessellum/core/report/report'
import { screen, waitFor, within } from '@testing-library/react'
import { SampleLog } from '../src/patterns/sample-log'
import { patternsRead } from './a-pattern'
import { changesIn, shopThatAnswers, show } from './on-screen'

const pattern = patternsRead[1]?.[1] as Pattern
const report = { pattern: 'Windlass pendant', size: 'classic', thread: { totalMm: 1800 } } as Report
const sample = (id: number, more: Partial<Sample> = {}): Sample => ({
  id,
  version: 2,
  size: 'classic',
  minutes: 80,
  threadMm: 1900,
  computedMm: 1800,
  computedMinutes: 75,
  technique: 'peyote',
  note: '',
  madeAt: '2026-11-02T10:00:00Z',
  madeBy: 'Bram',
  ...more,
})
const logged = (samples: Sample[], more: Partial<Samples> = {}): Samples => ({
  samples,
  technique: 'peyote',
  thread: null,
  minutes: null,
  correction: { ratio: 1, count: 0 },
  ...more,
})

function log({
  before = logged([]),
  of = pattern,
  answers = true,
}: {
  before?: Samples
  of?: Pattern
  answers?: boolean
} = {}) {
  const asked = shopThatAnswers({
    'POST /api/patterns/1/samples': () => (answers ? logged([sample(1)]) : 'lost'),
  })
  const page = show(<SampleLog pattern={of} report={report} minutes={42} eager={false} />, {
    data: [
      [['samples', 1], before],
      [['me'], { id: 2, name: 'bram', roles: ['designer'] }],
    ],
  })
  return { ...page, asked: () => changesIn(asked) }
}
const open = async ({ person }: ReturnType<typeof log>) => {
  await person.click(screen.getByRole('button', { name: 'Log a sample' }))
  return within(await screen.findByRole('dialog', { name: 'Log a sample' }))
}
const thread = () => screen.getByRole<HTMLInputElement>('spinbutton', { name: /Thread really used/ })
const minutes = () => screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Minutes it took' })

test('a sample is of the version as it is kept, with the minutes that the page was open and thread in millimetres', async () => {
  const page = log()
  const dialog = await open(page)
  expect(minutes().value).toBe('42')
  expect(dialog.getByText(/version 2\. Planned: 180 cm/)).toBeTruthy()
  await page.person.type(thread(), '190')
  await page.person.click(dialog.getByRole('button', { name: 'Log it' }))
  await waitFor(() => expect(page.asked()).toHaveLength(1))
  expect(page.asked()[0]?.[1]).toEqual({ version: 2, size: 'classic', minutes: 42, threadMm: 1900, note: '' })
  await screen.findByText(/1 sample logged, the last \+5\.6 % thread/)
})

test('of a draft that has changed since, it is of no version', async () => {
  const page = log({ of: { ...pattern, changed: true } })
  const dialog = await open(page)
  expect(dialog.getByText(/as drafted/)).toBeTruthy()
  await page.person.type(thread(), '190')
  await page.person.click(dialog.getByRole('button', { name: 'Log it' }))
  await waitFor(() => expect(page.asked()).toMatchObject([[expect.anything(), { version: null }]]))
})

test.each([
  ['', '42', 'Say how much thread was used.'],
  ['0.05', '42', 'Say how much thread was used.'],
  ['190', '', 'Say how many minutes it took.'],
  ['190', '42.5', 'Give whole minutes.'],
])('thread "%s" and minutes "%s" are not sent', async (cm, time, said) => {
  const page = log()
  const dialog = await open(page)
  await page.person.clear(minutes())
  if (time) await page.person.type(minutes(), time)
  if (cm) await page.person.type(thread(), cm)
  await page.person.click(dialog.getByRole('button', { name: 'Log it' }))
  await screen.findByText(said)
  // What was typed is not made another figure behind somebody's back.
  expect([thread().value, minutes().value]).toEqual([cm, time])
  expect(page.asked()).toEqual([])
})

test('samples of another size do not count; a correction is said with how many it rests on', async () => {
  const few = log({ before: logged([sample(1, { size: 'petite' })]) })
  expect(screen.getByText(/^No sample logged yet/).textContent).toContain('cut by samples once there are')
  few.unmount()
  const spread = { count: 4, median: 1.06, least: 1.01, most: 1.12 }
  const many = log({
    before: logged([sample(2), sample(1)], { thread: spread, correction: { ratio: 1.06, count: 4 } }),
  })
  expect(screen.getByText(/2 samples logged/).textContent).toContain('threads are cut +6.0 % by 4 samples')
  const dialog = await open(many)
  expect(dialog.getByText(/4 samples in peyote: thread \+6\.0 % in the middle, \+1\.0 % to \+12\.0 %/)).toBeTruthy()
  expect(dialog.getAllByRole('row')).toHaveLength(3)
})

test('where the shop does not answer, what was typed stays, also when the page is opened again', async () => {
  const page = log({ answers: false })
  const dialog = await open(page)
  await page.person.type(thread(), '190')
  await page.person.click(dialog.getByRole('button', { name: 'Log it' }))
  await screen.findByRole('alert')
  page.unmount()
  await open(log())
  expect(thread().value).toBe('190')
})
