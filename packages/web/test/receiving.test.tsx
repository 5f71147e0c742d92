/** A delivery goes on the shelf, whole or in part; what was typed outlives a closed window. */
import { screen, waitFor } from '@testing-library/react'
import { ReceiveLot } from '../src/stock/receive-lot'
import { shopThatAnswers, show } from './on-screen'

const item = { id: 5, name: 'round 15/0 Rust gate', unit: 'mg' as const }
const delivery = (purchaseId?: number) => {
  const asked = shopThatAnswers({
    'POST /api/items/5/lots': () => ({ lotId: 1 }),
    'POST /api/purchases/8/receive': () => ({ lotId: 1 }),
  })
  const close = jest.fn()
  const more = purchaseId === undefined ? {} : { purchaseId }
  return { ...show(<ReceiveLot item={item} quantity={20_000} close={close} {...more} />), asked, close }
}
const lot = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Lot, as the label says' })
const amount = () => screen.getByRole<HTMLInputElement>('spinbutton', { name: 'How much, g' })
const rest = () => screen.queryByRole('checkbox', { name: /are still to come/ })
const put = () => screen.getByRole('button', { name: 'Put it on the shelf' })

test('all that was bought is meant until somebody says otherwise; a lot needs its code', async () => {
  const { person, asked, close } = delivery()
  expect(amount().value).toBe('20')
  await person.click(put())
  await screen.findByText('Give the lot a code.')
  expect(asked).toEqual([])
  await person.type(lot(), 'RG-3')
  await person.click(put())
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(asked[0]).toMatchObject({ route: 'POST /api/items/5/lots', body: { code: 'RG-3', quantity: 20_000 } })
  expect(asked[0]?.body).not.toHaveProperty('restComing')
})

test('of an order that came in part the rest is still to come, or is not', async () => {
  const { person, asked } = delivery(8)
  expect(rest()).toBeNull()
  await person.type(lot(), 'RG-4')
  await person.clear(amount())
  await person.type(amount(), '12.5')
  await screen.findByText('The other 7.5 g are still to come')
  await person.click(rest() as HTMLElement)
  await person.click(put())
  await waitFor(() => expect(asked).toHaveLength(1))
  expect(asked[0]).toMatchObject({
    route: 'POST /api/purchases/8/receive',
    body: { code: 'RG-4', quantity: 12_500, restComing: false },
  })
})

test('what was typed is there again when the window is opened once more, and gone once it is on the shelf', async () => {
  const first = delivery(8)
  await first.person.type(lot(), 'RG-5')
  await waitFor(() => expect(JSON.stringify({ ...sessionStorage, ...localStorage })).toContain('RG-5'))
  first.unmount()
  const second = delivery(8)
  expect(lot().value).toBe('RG-5')
  await second.person.click(put())
  await waitFor(() => expect(second.close).toHaveBeenCalled())
  second.unmount()
  delivery(8)
  expect(lot().value).toBe('')
})
