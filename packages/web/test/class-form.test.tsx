/** A class is offered: its days, its seats, and what of one pattern can be chosen. */

import type { ClassAnswer } from '@tessellum/contract/classes'
import { screen, waitFor, within } from '@testing-library/react'
import { Form } from 'antd'
import dayjs from 'dayjs'
import { NewClassPage } from '../src/diary/class-form'
import { ClassMoveNotice } from '../src/diary/class-move'
import { evaluatedInTwoSizes, patternsRead } from './a-pattern'
import { changesIn, shopThatAnswers, show } from './on-screen'

beforeEach(evaluatedInTwoSizes)

const form = () => {
  const asked = shopThatAnswers({
    'POST /api/classes': () => ({ status: 409, code: 'conflict', message: 'The long table is taken then.', hint: '' }),
  })
  const page = show(<NewClassPage />, { data: [...patternsRead, [['teachers'], [{ id: 4, name: 'Corin' }]]] })
  return { ...page, asked: () => changesIn(asked) }
}
type Person = ReturnType<typeof form>['person']
const choices = () => screen.getAllByRole('group', { name: 'A line of the batch' })
const said = (at: number, name: string) =>
  within(choices()[at] as HTMLElement)
    .getByRole('combobox', { name })
    .closest('.ant-select')?.textContent
const choose = async (person: Person, at: number, name: string, option: string) => {
  await person.click(await within(choices()[at] as HTMLElement).findByRole('combobox', { name }))
  const [last] = (await screen.findAllByTitle(option)).slice(-1)
  await person.click(last as HTMLElement)
}
const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save the class' })
const fill = async (person: Person) => {
  await person.type(screen.getByRole('textbox', { name: 'Class' }), 'First bezel')
  await person.type(screen.getByRole('textbox', { name: 'Where' }), 'the long table')
  await person.click(screen.getByRole('combobox', { name: 'Who teaches' }))
  await person.click(await screen.findByTitle('Corin'))
  await choose(person, 0, 'Pattern', 'Windlass pendant')
  await waitFor(() => expect(said(0, 'Size')).toBe('classic'))
}

test('a further choice is of the same pattern; what is refused is said, and everything typed stays', async () => {
  const { person, asked } = form()
  await fill(person)
  await person.click(screen.getByRole('button', { name: 'Another choice' }))
  await choose(person, 1, 'Size', 'petite')
  await choose(person, 1, 'Colourway', 'Old gold')
  await person.click(keep())
  await screen.findByText(/The long table is taken then/)
  expect(asked()).toEqual([
    [
      'POST /api/classes',
      {
        title: 'First bezel',
        heldOn: dayjs().add(21, 'day').format('YYYY-MM-DD'),
        beginsAt: '10:00',
        moreDays: [],
        minutes: 180,
        place: 'the long table',
        seats: 8,
        teacherId: 4,
        patternId: 1,
        version: 2,
        offers: [
          { size: 'classic', colourwayId: 11 },
          { size: 'petite', colourwayId: 12 },
        ],
        spareKits: 1,
        price: 0,
        note: '',
      },
    ],
  ])
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Class' }).value).toBe('First bezel')
  expect(said(1, 'Colourway')).toBe('Old gold')
})

test('another pattern for the first choice is another pattern for all of them', async () => {
  const { person } = form()
  await fill(person)
  await person.click(screen.getByRole('button', { name: 'Another choice' }))
  await choose(person, 0, 'Pattern', 'Heron earrings')
  await waitFor(() => expect(said(1, 'Pattern')).toBe('Heron earrings'))
  // It has no colourway, so nothing can be chosen of it yet.
  expect(keep().disabled).toBe(true)
})

test('what is left out is told in our words, beside the form, before anything is sent', async () => {
  const { person, asked } = form()
  await person.click(keep())
  await screen.findByText('Name the class.')
  await screen.findByText('Choose who teaches.')
  await fill(person)
  await person.clear(screen.getByRole('spinbutton', { name: 'Spare kits' }))
  await person.click(screen.getByRole('button', { name: 'A further day' }))
  await person.click(keep())
  await screen.findByText('Give the day.')
  await person.click(screen.getByRole('button', { name: 'Remove further day 1' }))
  await person.click(keep())
  const alert = await screen.findByRole('alert')
  expect(alert.textContent).not.toMatch(/invalid|expected|received|null/i)
  expect(asked()).toEqual([])
})

test('another day for a class tells what would be too late, before it is saved', async () => {
  shopThatAnswers({
    'GET /api/classes/7/move?heldOn=2027-02-01': () => ({
      packBy: null,
      late: [{ itemId: 3, name: 'Rust round', orderBy: '2027-01-11' }],
      clashes: [],
    }),
  })
  const offered = { id: 7, heldOn: '2027-03-01', batchId: 12 } as ClassAnswer
  show(
    <Form initialValues={{ day: dayjs('2027-02-01') }}>
      <Form.Item name="day">
        <i />
      </Form.Item>
      <ClassMoveNotice offered={offered} />
    </Form>,
  )
  const notice = await screen.findByRole('status')
  expect(notice.textContent).toContain('1 February')
  expect(within(notice).getByRole('listitem').textContent).toContain('Rust round')
})
