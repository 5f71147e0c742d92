/** A page is fetched while the mouse or the focus rests on a link to it. */
import { fireEvent, render, screen } from '@testing-library/react'
import { prefetchPages } from '../src/frame/prefetch'
import './on-screen'

const fetched: string[] = []
const page = (name: string, fails = false) => ({
  lazy: async () => {
    fetched.push(name)
    if (fails) throw new Error('The shop cannot be reached.')
    return {}
  },
  handle: { ahead: (params: object) => fetched.push(`${name} ${JSON.stringify(params)}`) },
})

beforeAll(() =>
  prefetchPages([
    { path: '/stock/:id', ...page('item') },
    { path: '/gone', ...page('gone', true) },
  ]),
)
beforeEach(() => {
  fetched.length = 0
  jest.useFakeTimers()
  render(
    <>
      <a href="/stock/4">
        <b>Lantern green</b>
      </a>
      <a href="/gone">Gone</a>
      <a href="https://elsewhere.example/stock/5">Elsewhere</a>
      <p>beside</p>
    </>,
  )
})
afterEach(() => jest.useRealTimers())

test('its code and what it reads first, once the mouse has rested there', () => {
  fireEvent.pointerOver(screen.getByText('Lantern green'))
  expect(fetched).toEqual([])
  jest.runAllTimers()
  expect(fetched).toEqual(['item', 'item {"id":"4"}'])
})

test('a mouse that passes by asks for nothing, and neither does another shop or what is no link', () => {
  fireEvent.pointerOver(screen.getByText('Lantern green'))
  fireEvent.pointerOver(screen.getByText('beside'))
  jest.runAllTimers()
  fireEvent.focusIn(screen.getByText('Elsewhere'))
  jest.runAllTimers()
  expect(fetched).toEqual([])
})

test('what cannot be fetched ahead is left to the page itself', async () => {
  fireEvent.focusIn(screen.getByText('Gone'))
  jest.runAllTimers()
  await Promise.resolve()
  expect(fetched).toEqual(['gone', 'gone {}'])
})
