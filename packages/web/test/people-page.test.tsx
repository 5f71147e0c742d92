/** Who may sign in, and as what. */
import type { Person } from '@tessellum/contract/people'
import { screen, waitFor, within } from '@testing-library/react'
import { PeoplePage } from '../src/people/people-page'
import { changesIn, shopThatAnswers, show } from './on-screen'

const person = (id: number, fullName: string, more: Partial<Person> = {}): Person => ({
  id,
  name: fullName.toLowerCase(),
  fullName,
  roles: ['stockroom'],
  disabled: false,
  waiting: false,
  sessions: 0,
  ...more,
})
const all = [
  person(1, 'Isaura', { roles: ['owner'], sessions: 1 }),
  person(2, 'Odile', { sessions: 2 }),
  person(3, 'Bram', { disabled: true }),
  person(4, 'Corin', { waiting: true, roles: ['teacher', 'counter'] }),
]

const page = (answers: Record<string, (body: unknown) => unknown> = {}) => {
  let people = all
  const asked = shopThatAnswers({
    'GET /api/people': () => people,
    'POST /api/people/2/disable': () => ({ id: 2 }),
    'POST /api/people/2/enable': () => ({ id: 2 }),
    'POST /api/people': () => {
      people = [...all, person(5, 'Wren', { waiting: true, roles: ['counter'] })]
      return { id: 5 }
    },
    'POST /api/people/5/link': () => ({ path: '/welcome/abc', expiresAt: '2026-12-05T09:00:00Z' }),
    ...answers,
  })
  const shown = show(<PeoplePage />, {
    data: [
      [['people'], all],
      [['me'], { id: 1, name: 'isaura', roles: ['owner'] }],
    ],
  })
  return { ...shown, asked: () => changesIn(asked) }
}
const row = (name: string) => screen.getByRole('rowheader', { name }).closest('tr') as HTMLElement
const actions = (name: string) =>
  within(row(name))
    .queryAllByRole('button')
    .map((each) => each.textContent)

test('each has what fits how they stand; nobody locks themselves out', () => {
  page()
  expect(actions('Isaura')).toEqual(['Change'])
  expect(actions('Odile')).toEqual(['Change', 'Link', 'Disable'])
  expect(actions('Bram')).toEqual(['Change', 'Restore access'])
  expect(row('Odile').textContent).toContain('signed in in 2 browsers')
  expect(row('Corin').textContent).toContain('no password yet')
})

test('who is disabled is so after a question, and can be let in again at once', async () => {
  const { person: user, asked } = page()
  await user.click(within(row('Odile')).getByRole('button', { name: 'Disable' }))
  expect(asked()).toEqual([])
  await user.click(await screen.findByRole('button', { name: 'Disable Odile' }))
  await screen.findByText('They can no longer sign in.', { exact: false })
  await user.click(screen.getByRole('button', { name: 'Undo' }))
  await waitFor(() =>
    expect(asked().map(([route]) => route)).toEqual(['POST /api/people/2/disable', 'POST /api/people/2/enable']),
  )
})

test('somebody new has a name, a sign-in name and a role, and is given a link at once', async () => {
  const { person: user, asked } = page()
  await user.click(screen.getByRole('button', { name: 'Add somebody' }))
  await user.click(screen.getByRole('button', { name: 'Add' }))
  // Each is told what it lacks, and told once.
  for (const said of ['Enter a name.', 'Give a sign-in name.', 'Choose at least one role.'])
    await screen.findByText(said)
  expect(asked()).toEqual([])
  await user.type(screen.getByRole('textbox', { name: 'Name' }), 'Wren')
  await user.type(screen.getByRole('textbox', { name: 'Sign-in name' }), 'wren')
  await user.click(screen.getByRole('checkbox', { name: /^counter:/ }))
  await user.click(screen.getByRole('button', { name: 'Add' }))
  await screen.findByText(`${window.location.origin}/welcome/abc`)
  screen.getByText(/It works once, until 5 December 2026/)
  expect(asked()).toEqual([
    ['POST /api/people', { fullName: 'Wren', name: 'wren', roles: ['counter'] }],
    ['POST /api/people/5/link', undefined],
  ])
})

test('the last owner stays one: what is refused is said in the form, with what was chosen', async () => {
  const { person: user } = page({
    'PUT /api/people/1': () => ({
      status: 409,
      code: 'last-owner',
      message: 'The shop needs an owner.',
      hint: 'Make somebody else an owner first.',
    }),
  })
  await user.click(screen.getByRole('button', { name: 'Change Isaura' }))
  await user.click(screen.getByRole('checkbox', { name: /^owner:/ }))
  await user.click(screen.getByRole('checkbox', { name: /^designer:/ }))
  await user.click(screen.getByRole('button', { name: 'Save' }))
  await screen.findByText(/The shop needs an owner/)
  expect(screen.getByRole<HTMLInputElement>('checkbox', { name: /^designer:/ }).checked).toBe(true)
})
