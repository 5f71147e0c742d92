/** A link from the owner: a password is chosen with it once, and its person is in. */
import { screen, waitFor } from '@testing-library/react'
import { WelcomePage } from '../src/people/welcome-page'
import { read } from '../src/shop/queries'
import { changesIn, shopThatAnswers, show } from './on-screen'

const wren = { id: 5, name: 'wren', fullName: 'Wren Alder', roles: ['counter'], csrfToken: 'new' }

const follow = (answers: Record<string, (body: unknown) => unknown> = {}) => {
  window.location.hash = '#abc'
  const asked = shopThatAnswers({
    'POST /api/welcome': () => ({ name: 'wren', fullName: 'Wren Alder' }),
    'POST /api/welcome/password': () => wren,
    ...answers,
  })
  return { ...show(<WelcomePage />, { path: '/welcome' }), asked: () => changesIn(asked) }
}
afterEach(() => {
  window.location.hash = ''
})
const field = (name: string) => screen.findByLabelText(name)
const comeIn = () => screen.getByRole('button', { name: 'Save and sign in' })

test('they are greeted by name, choose a password twice, and are signed in', async () => {
  const { person, client, router, asked } = follow()
  await screen.findByRole('heading', { name: 'Welcome, Wren Alder' })
  await person.type(await field('New password'), 'reeds in the harbour')
  await person.type(await field('Repeat the password'), 'reeds in the harbour')
  await person.click(comeIn())
  await waitFor(() => expect(router.state.location.pathname).toBe('/'))
  expect(asked()).toEqual([
    ['POST /api/welcome', { token: 'abc' }],
    ['POST /api/welcome/password', { token: 'abc', password: 'reeds in the harbour' }],
  ])
  expect(client.getQueryData(read.me.queryKey)).toEqual(wren)
})

test.each([
  ['short', 'short', /at least 10/],
  ['reeds in the harbour', 'reeds in the harbor', /The passwords do not match/],
])('"%s" and "%s" are not sent', async (first, again, said) => {
  const { person, asked } = follow()
  await person.type(await field('New password'), first)
  await person.type(await field('Repeat the password'), again)
  await person.click(comeIn())
  // Once above for the rule, and once for what was typed.
  expect((await screen.findAllByText(said)).length).toBeGreaterThan(0)
  expect(asked()).toHaveLength(1)
})

test('a link that was used before says so, and leads to signing in', async () => {
  follow({
    'POST /api/welcome': () => ({
      status: 410,
      code: 'link-used',
      message: 'This link has been used or has expired.',
      hint: 'Ask the owner for another.',
    }),
  })
  const told = await screen.findByRole('alert')
  expect(told.textContent).toBe('This link has been used or has expired. Ask the owner for another.')
  expect(screen.queryByLabelText('New password')).toBeNull()
  expect(screen.getByRole<HTMLAnchorElement>('link', { name: 'To the sign-in page' }).getAttribute('href')).toBe(
    '/sign-in',
  )
})

test('a password that the shop refuses can be chosen again', async () => {
  const { person } = follow({
    'POST /api/welcome/password': () => ({
      status: 422,
      code: 'invalid',
      message: 'This password is too easily guessed.',
      hint: 'Take a few words.',
    }),
  })
  await person.type(await field('New password'), 'password12345')
  await person.type(await field('Repeat the password'), 'password12345')
  await person.click(comeIn())
  expect((await screen.findByText(/too easily guessed/)).textContent).toContain('Take a few words.')
  expect(comeIn()).toBeTruthy()
})
