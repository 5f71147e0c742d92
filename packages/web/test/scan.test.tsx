/** A code from the scanner or typed in is looked up once, and what is wrong with it here is said. */
import type { Found } from '@tessellum/contract/devices'
import { screen, waitFor } from '@testing-library/react'
import { Scan } from '../src/packing/scan'
import { hears, shopThatAnswers, show } from './on-screen'

const tube: Found = { kind: 'lot', lotId: 9, itemId: 1, name: 'Lantern green', lotCode: 'BC101/1' }

const bench = (take: (found: Found) => string | undefined = () => undefined) => {
  const asked = shopThatAnswers({
    'GET /api/codes/L9': () => tube,
    'GET /api/codes/L%20%2F9': () => tube,
    'GET /api/codes/X': () => ({ status: 404, code: 'not-found', message: 'No label says X.', hint: 'Scan it again.' }),
  })
  const taken: Found[] = []
  const page = show(
    <Scan
      take={(found) => {
        taken.push(found)
        return take(found)
      }}
    />,
  )
  return { ...page, asked, taken }
}
const scanned = (code: string) => hears('scanner', JSON.stringify({ code }))
const field = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Scan or type a code' })

test('a scanned label is taken; read twice in a moment it is one', async () => {
  const { asked, taken } = bench()
  await scanned('L9')
  await scanned('L9')
  await waitFor(() => expect(taken).toEqual([tube]))
  expect(asked).toHaveLength(1)
})

test('a typed code is looked up on Enter, whatever is in it, and the field is free for the next', async () => {
  const { person, taken } = bench()
  await person.type(field(), ' L /9 {Enter}')
  await waitFor(() => expect(taken).toEqual([tube]))
  expect(field().value).toBe('')
})

test('what nobody knows, and what does not belong here, is said until the next is right', async () => {
  const { person } = bench(({ kind }) => (kind === 'lot' ? 'This tube is not for this batch.' : undefined))
  await person.type(field(), 'X{Enter}')
  await screen.findByText('No label says X. Scan it again.')
  await scanned('L9')
  await screen.findByText('This tube is not for this batch.')
})

test('a tab that nobody looks at leaves what is scanned to the one that is', async () => {
  const { asked } = bench()
  const looked = jest.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden')
  await scanned('L9')
  expect(asked).toEqual([])
  looked.mockRestore()
  await scanned('L9')
  await waitFor(() => expect(asked).toHaveLength(1))
})
