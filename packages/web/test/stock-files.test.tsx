/** A file of stock is looked at before it is taken in, and with a fault it is not taken in at all. */
import type { StockFileOutcome } from '@tessellum/contract/stock-file'
import { screen, waitFor } from '@testing-library/react'
import { StockFilesPage } from '../src/stock/files-page'
import { shopThatAnswers, show } from './on-screen'

const outcome: StockFileOutcome = {
  rows: 3,
  faults: [],
  moreFaults: 0,
  newItems: ['BC-9, Heath'],
  changedItems: [{ code: 'BC-1', changes: ['place A1 to B2', 'finish matte'] }],
  sameItems: 1,
  newLots: [],
  otherQuantities: ['L1 has 5 g, the file 4 g'],
  done: false,
}
const file = (name = 'stock.csv') => new File(['code,kind\n'], name, { type: 'text/csv' })

const page = (preview: StockFileOutcome, roles = ['stockroom']) => {
  const asked = shopThatAnswers({
    'POST /api/stock/file/preview': () => preview,
    'POST /api/stock/file': () => ({ ...preview, done: true }),
  })
  const { fetch } = globalThis
  // A file is sent as its bytes, and not as text of JSON.
  Object.assign(globalThis, {
    fetch: (url: string, { body, ...how }: { body: unknown }) => fetch(url, { ...how, body: null } as RequestInit),
  })
  return { ...show(<StockFilesPage />, { data: [[['me'], { name: 'odile', roles }]] }), asked }
}
const input = () => document.querySelector<HTMLInputElement>('input[type=file]') as HTMLInputElement
const routes = (asked: readonly { route: string }[]) => asked.map(({ route }) => route)

test('what it would bring is told, and it is taken in when somebody says so', async () => {
  const { person, asked } = page(outcome)
  await person.upload(input(), file())
  const told = await screen.findByText(/3 rows, no errors/)
  expect(told.textContent).toBe(
    '3 rows, no errors. This would bring: 1 new item, 0 new lots, 1 changed item; 1 stays as it is.',
  )
  screen.getByText('Changed: 2')
  screen.getByText('BC-1, place A1 to B2')
  screen.getByText('Left as the ledger has it; count the place if the file is right: 1')
  expect(routes(asked)).toEqual(['POST /api/stock/file/preview'])
  await person.click(screen.getByRole('button', { name: 'Import' }))
  await screen.findByText(/^Done: 1 new item/)
  expect(routes(asked)).toEqual(['POST /api/stock/file/preview', 'POST /api/stock/file'])
  expect(screen.queryByRole('button', { name: 'Import' })).toBeNull()
})

test('each fault is told with its row and column, and there is nothing to take in', async () => {
  const { person } = page({
    ...outcome,
    faults: [{ row: 2, column: 'unit', message: 'A unit is mg, mm or piece.' }],
    moreFaults: 4,
  })
  await person.upload(input(), file())
  await screen.findByText(/5 errors in 3 rows: nothing is imported/)
  screen.getByText('A unit is mg, mm or piece.')
  expect(screen.queryByRole('button', { name: /Import/ })).toBeNull()
})

test('a file that brings nothing new is not taken in; another one is looked at anew', async () => {
  const { person, asked } = page({ ...outcome, newItems: [], changedItems: [], otherQuantities: [] })
  await person.upload(input(), file())
  const nothing = await screen.findByRole<HTMLButtonElement>('button', { name: 'Nothing is new in it' })
  expect(nothing.disabled).toBe(true)
  await person.upload(input(), file('other.csv'))
  await waitFor(() => expect(asked).toHaveLength(2))
  await screen.findByText('other.csv')
})

test('who may not keep stock takes files out, and none in', () => {
  page(outcome, ['teacher'])
  screen.getByRole('link', { name: 'Stock as CSV' })
  expect(input()).toBeNull()
})
