/** Signing in leads to where one wanted to go, and never out of the shop. */

import type { Pattern } from '@tessellum/contract/patterns'
import { screen, waitFor } from '@testing-library/react'
import { KeepVersion } from '../src/patterns/keep-version'
import { SignInPage } from '../src/people/sign-in'
import { patternsRead } from './a-pattern'
import { changesIn, shopThatAnswers, show } from './on-screen'

const me = { id: 1, name: 'isaura', fullName: 'Isaura', roles: ['owner'], csrfToken: 'token' }
const page = (next?: string, answer: () => unknown = () => me) => {
  const asked = shopThatAnswers({ 'POST /api/sign-in': answer })
  const shown = show(<SignInPage />, {
    path: '/sign-in',
    at: next === undefined ? '/sign-in' : `/sign-in?${new URLSearchParams({ next })}`,
    data: [[['shop'], { name: 'The Tessellum', empty: false }]],
  })
  return { ...shown, asked: () => changesIn(asked) }
}
const come = async (person: ReturnType<typeof page>['person']) => {
  await person.type(screen.getByRole('textbox', { name: 'Sign-in name' }), 'isaura')
  await person.type(screen.getByLabelText('Password'), 'a few long words')
  await person.click(screen.getByRole('button', { name: 'Sign in' }))
}

test.each([
  [undefined, '/'],
  ['/kits/3?show=bags', '/kits/3?show=bags'],
  ['https://elsewhere.example/', '/'],
  ['//elsewhere.example/', '/'],
  ['javascript:alert(1)', '/'],
])('after %s one comes to %s', async (next, place) => {
  const { person, router } = page(next)
  await come(person)
  await waitFor(() => expect(router.state.location.pathname).not.toBe('/sign-in'))
  expect(router.state.location.pathname + router.state.location.search).toBe(place)
})

test('who is refused is told so, and keeps the name they typed', async () => {
  const { person, asked } = page(undefined, () => ({
    status: 401,
    code: 'wrong',
    message: 'That name and password do not go together.',
    hint: 'Try again.',
  }))
  await person.click(screen.getByRole('button', { name: 'Sign in' }))
  await screen.findByText('Enter your password.')
  expect(asked()).toEqual([])
  await come(person)
  await screen.findByText('That name and password do not go together. Try again.')
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Sign-in name' }).value).toBe('isaura')
})

describe('a version is saved', () => {
  const [, [, pattern]] = patternsRead as unknown as [unknown, [unknown, Pattern]]
  const dialog = async (save: () => Promise<number | undefined>, errors = 0) => {
    const asked = shopThatAnswers({ 'POST /api/patterns/1/versions': () => ({ ...pattern, version: 3 }) })
    const shown = show(<KeepVersion pattern={pattern} save={save} errors={errors} />)
    const button = screen.getByRole<HTMLButtonElement>('button', { name: 'Save a version' })
    if (!button.disabled) await shown.person.click(button)
    return { ...shown, button, asked: () => changesIn(asked) }
  }

  test('of the revision that the draft has once it is saved', async () => {
    const { person, asked } = await dialog(async () => 9)
    screen.getByText(/It will be version 3/)
    await person.type(screen.getByRole('textbox', { name: 'What changed' }), 'Row 9.')
    await person.click(screen.getByRole('button', { name: 'Save version' }))
    await screen.findByText('Version 3 saved.')
    expect(asked()).toEqual([['POST /api/patterns/1/versions', { name: 'Edition 3', note: 'Row 9.', revision: 9 }]])
  })

  test('not of a draft that could not be saved, and not with faults in it', async () => {
    const { person, asked, unmount } = await dialog(async () => undefined)
    await person.click(screen.getByRole('button', { name: 'Save version' }))
    await screen.findByText('The draft could not be saved first. Try again when it has been.')
    expect(asked()).toEqual([])
    unmount()
    const { button } = await dialog(async () => 9, 2)
    expect(button.disabled).toBe(true)
  })
})
