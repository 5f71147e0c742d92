/** The command bar: by a few letters to a page, a thing to do, or an answer. */
import { screen, waitFor } from '@testing-library/react'
import { CommandBar } from '../src/frame/command-bar'
import { changesIn, namedItem, settle, shopThatAnswers, show } from './on-screen'

const shelf = {
  items: [
    {
      ...namedItem(4, 'Winter grey'),
      maker: 'Tarn',
      unit: 'mg',
      packs: [],
      reorderBelow: 0,
      cautions: '',
      bead: null,
      onHand: 0,
      reserved: 0,
      retired: false,
    },
  ],
  next: null,
}

const bar = (roles: readonly string[] = ['stockroom']) => {
  const asked = shopThatAnswers({
    'POST /api/batches/3/reserve': () => ({ status: 409, code: 'short', message: 'Lantern green is short.', hint: '' }),
    'GET /api/shelf?find=winter&show=all&by=colour': () => shelf,
  })
  const close = jest.fn()
  const page = show(<CommandBar close={close} />, {
    data: [
      [['patterns'], [{ id: 1, title: 'Winter rose', version: 1 }]],
      [['batches'], [{ id: 3, name: 'Winter fair', state: 'draft' }]],
      [['me'], { name: 'odile', roles }],
    ],
  })
  return { ...page, close, asked: () => changesIn(asked) }
}
const box = () => screen.getByRole<HTMLInputElement>('combobox', { name: 'Find' })
const options = () => screen.queryAllByRole('option').map((each) => each.textContent)
const marked = () => screen.getByRole('option', { selected: true }).textContent

test('arrows go round what is found, the box says which is marked, and Enter goes there', async () => {
  const { person, router, close } = bar()
  await person.type(box(), 'winter')
  await waitFor(() => expect(options()).toHaveLength(3))
  expect(marked()).toBe('Winter rosepattern')
  await person.keyboard('{ArrowUp}')
  expect(marked()).toBe(options().at(-1))
  await person.keyboard('{ArrowDown}{ArrowDown}')
  expect(marked()).toBe('Winter fairbatch')
  expect(document.getElementById(box().getAttribute('aria-activedescendant') ?? '')?.textContent).toBe(marked())
  await person.keyboard('{Enter}')
  expect(close).toHaveBeenCalled()
  expect(router.state.location.pathname).toBe('/kits/3')
})

test('typing on marks the first again, and Enter where nothing is found does nothing', async () => {
  const { person, router, close } = bar()
  await person.type(box(), 'winter{ArrowDown} rose')
  expect(marked()).toBe('Winter rosepattern')
  await person.type(box(), 'zz')
  await screen.findByText('Nothing by that name.')
  await person.keyboard('{ArrowDown}{Enter}')
  expect(close).not.toHaveBeenCalled()
  expect(router.state.location.pathname).toBe('/')
})

test('a batch is reserved from here; what is refused is told', async () => {
  const { person, asked } = bar()
  await person.type(box(), 'reserve winter{Enter}')
  await screen.findByText(/Lantern green is short/)
  expect(asked()).toEqual([['POST /api/batches/3/reserve', undefined]])
})

test('a question of fit is answered in place', async () => {
  const { person } = bar()
  await person.type(box(), 'fit 14 mm round with cylinder 11/0')
  const answer = await screen.findByRole('status')
  expect(answer.textContent).toMatch(/\b3[468]\b/)
  await person.type(box(), '{Backspace}')
  await settle()
})

test('customers are looked for only by those who may know them', async () => {
  const { person } = bar(['stockroom'])
  const asked: string[] = []
  const { fetch } = globalThis
  Object.assign(globalThis, {
    fetch: (url: string, how: RequestInit) => {
      asked.push(url)
      return fetch(url, how)
    },
  })
  await person.type(box(), 'winter')
  await waitFor(() => expect(asked.some((url) => url.startsWith('/api/shelf'))).toBe(true))
  expect(asked.filter((url) => url.startsWith('/api/customers'))).toEqual([])
})
