/** A place is counted tube by tube with the keyboard alone. */
import type { Stocktake } from '@tessellum/contract/stocktake'
import { screen, waitFor } from '@testing-library/react'
import { CountPage } from '../src/stock/count-page'
import { namedItem, shopThatAnswers, show } from './on-screen'

const names = ['Lantern green', 'Rust gate', 'Old gold']
const counted = (found: readonly (number | null)[]): Stocktake => ({
  id: 3,
  place: 'A1',
  state: 'counting',
  begunAt: '2026-03-01T09:00:00Z',
  begunBy: 'Odile',
  lots: found.length,
  counted: found.filter((mg) => mg !== null).length,
  rows: found.map((mg, i) => ({
    lotId: 10 + i,
    lotCode: `L${i}`,
    itemId: i,
    name: names[i] ?? '',
    item: namedItem(i, names[i] ?? ''),
    unit: 'mg' as const,
    frozen: 5000,
    moved: 0,
    expected: 5000,
    counted: mg,
    countedBy: null,
    cost: null,
  })),
})
const place = () => {
  const found: (number | null)[] = [null, null, null]
  const asked = shopThatAnswers(
    Object.fromEntries(
      found.map((_, i) => [
        `PUT /api/stocktakes/3/lots/${10 + i}`,
        (body: unknown) => {
          const { counted: mg } = body as { counted: number | null }
          if (mg !== null && mg > 9000)
            return { status: 400, code: 'invalid', message: 'That is more than the tube holds.' }
          found[i] = mg
          return counted(found)
        },
      ]),
    ),
  )
  const page = show(<CountPage />, {
    path: '/stock/count/:id',
    at: '/stock/count/3',
    data: [
      [['stocktakes', 3], counted(found)],
      [['me'], { name: 'odile', roles: ['stockroom'] }],
    ],
  })
  return { ...page, asked }
}
const fields = () =>
  screen
    .getAllByRole<HTMLInputElement>('spinbutton')
    .filter((each) => /lot L/.test(each.ariaLabel ?? each.getAttribute('aria-label') ?? ''))

test('Enter keeps what was found and goes on to the next tube; what was left empty is not counted', async () => {
  const { person, asked } = place()
  await person.click(fields()[0] as HTMLElement)
  await person.keyboard('5.2{Enter}')
  expect(document.activeElement).toBe(fields()[1])
  await person.keyboard('{Enter}4.9{Enter}')
  await screen.findByText(/2 of 3/)
  // Keyed by what is asked, so that Enter and leaving the field are one request.
  const kept = new Map(asked.map(({ key, route, body }) => [key, [route, body]]))
  expect([...kept.values()]).toEqual([
    ['PUT /api/stocktakes/3/lots/10', { counted: 5200 }],
    ['PUT /api/stocktakes/3/lots/12', { counted: 4900 }],
  ])
  screen.getByText('+0.2 g')
  screen.getByText('-0.1 g')
})

test('what is refused stands in its row, and what was typed stays in its field', async () => {
  const { person } = place()
  await person.click(fields()[1] as HTMLElement)
  await person.keyboard('50{Enter}')
  const alert = await screen.findByText('That is more than the tube holds.', { exact: false })
  expect(alert.closest('tr')?.textContent).toContain('Rust gate')
  expect(fields()[1]?.value).toBe('50')
  await person.clear(fields()[1] as HTMLElement)
  await person.type(fields()[1] as HTMLElement, '5{Enter}')
  await waitFor(() => expect(screen.queryByText('That is more than the tube holds.', { exact: false })).toBeNull())
})
