/** What a person does is done once, told, and shown wherever it changes something. */
import { useQuery } from '@tanstack/react-query'
import { act, screen, waitFor } from '@testing-library/react'
import { call } from '../src/shop/api'
import { undoWhatIsOffered } from '../src/shop/offered-undo'
import { useIdempotentMutation } from '../src/shop/use-idempotent-mutation'
import { type Asked, settle, shopThatAnswers, show } from './on-screen'

function Reprice() {
  const { data } = useQuery({ queryKey: ['stock', 7], queryFn: () => call('GET /api/work') })
  const reprice = useIdempotentMutation(
    (price: number) =>
      call('PUT /api/items/:id/packs', { params: { id: 7 }, body: { packs: [{ amount: 8000, price, leadDays: 3 }] } }),
    {
      stale: ['stock'],
      said: (_, price) => `A pack costs ${price} now.`,
      undo: () => () =>
        call('PUT /api/items/:id/packs', {
          params: { id: 7 },
          body: { packs: [{ amount: 8000, price: 300, leadDays: 3 }] },
        }),
    },
  )
  return (
    <>
      <p>{data ? `${data.ahead} ahead` : 'not read'}</p>
      <button type="button" onClick={() => reprice.run(360)} disabled={reprice.busy}>
        Reprice
      </button>
      {reprice.refused && <p role="alert">{reprice.refused.message}</p>}
    </>
  )
}
const press = async (person: { click: (on: Element) => Promise<void> }) => {
  await person.click(screen.getByRole('button', { name: 'Reprice' }))
  await settle()
}
const puts = (asked: readonly Asked[]) => asked.filter(({ route }) => route.startsWith('PUT'))

test('what it makes stale is read again, and it is said what was done', async () => {
  let ahead = 1
  shopThatAnswers({
    'GET /api/work': () => ({ ahead: ahead++, done: 0 }),
    'PUT /api/items/7/packs': () => ({ itemId: 7 }),
  })
  const { person } = show(<Reprice />)
  await screen.findByText('1 ahead')
  await press(person)
  await screen.findByText('A pack costs 360 now.')
  await screen.findByText('2 ahead')
})

test('what is refused stands where it was asked for, and what others changed meanwhile is read again', async () => {
  let ahead = 1
  shopThatAnswers({
    'GET /api/work': () => ({ ahead: ahead++, done: 0 }),
    'PUT /api/items/7/packs': () => ({ status: 409, code: 'taken', message: 'Somebody changed it meanwhile.' }),
  })
  const { person } = show(<Reprice />)
  await screen.findByText('1 ahead')
  await press(person)
  expect((await screen.findByRole('alert')).textContent).toBe('Somebody changed it meanwhile.')
  await screen.findByText('2 ahead')
})

test('an answer that is lost: pressed again it is the same request; after an answer it is another', async () => {
  const answers: unknown[] = ['lost', { itemId: 7 }, { itemId: 7 }]
  const asked = shopThatAnswers({
    'GET /api/work': () => ({ ahead: 0, done: 0 }),
    'PUT /api/items/7/packs': () => answers.shift(),
  })
  const { person } = show(<Reprice />)
  await press(person)
  await screen.findByText('The shop does not answer.')
  await press(person)
  await screen.findByText('A pack costs 360 now.')
  await press(person)
  await waitFor(() => expect(puts(asked)).toHaveLength(3))
  const [lost, again, next] = puts(asked).map(({ key }) => key)
  expect(again).toBe(lost)
  expect(next).not.toBe(lost)
})

test('what is done can be undone at once; an undoing that does not reach the shop is offered again, and is one request', async () => {
  const answers: unknown[] = [{ itemId: 7 }, 'lost', { itemId: 7 }]
  const asked = shopThatAnswers({
    'GET /api/work': () => ({ ahead: 0, done: 0 }),
    'PUT /api/items/7/packs': () => answers.shift(),
  })
  const { person } = show(<Reprice />)
  await press(person)
  await person.click(await screen.findByRole('button', { name: 'Undo' }))
  await screen.findByText(/^The shop does not answer/)
  await screen.findByRole('button', { name: 'Undo' })
  await act(async () => expect(undoWhatIsOffered()).toBe(true))
  await screen.findByText('Undone.')
  expect(undoWhatIsOffered()).toBe(false)
  const [done, lost, undone] = puts(asked)
  expect(undone?.body).toEqual({ packs: [{ amount: 8000, price: 300, leadDays: 3 }] })
  expect(undone?.key).toBe(lost?.key)
  expect(undone?.key).not.toBe(done?.key)
})

/** One of two places that change the same thing, and show what the shop has answered last. */
function Row({ row, show: showAnswer }: { row: number; show: (answer: number) => void }) {
  const { run } = useIdempotentMutation(
    (price: number) =>
      call('PUT /api/items/:id/packs', { params: { id: row }, body: { packs: [{ amount: 1, price, leadDays: 0 }] } }),
    { of: 'the price list', after: ({ itemId }) => showAnswer(itemId) },
  )
  return (
    <button type="button" onClick={() => run(1)}>
      Change row {row}
    </button>
  )
}

/** Both are pressed, one right after the other. @returns the answers, as they are shown */
async function changeBoth(): Promise<readonly number[]> {
  const shown: number[] = []
  const { person } = show(
    <>
      <Row row={1} show={(answer) => shown.push(answer)} />
      <Row row={2} show={(answer) => shown.push(answer)} />
    </>,
  )
  await person.click(screen.getByRole('button', { name: 'Change row 1' }))
  await person.click(screen.getByRole('button', { name: 'Change row 2' }))
  return shown
}

test('of two quick changes of the same thing the second goes when the first is answered, however long that takes', async () => {
  let answerFirst = (_: unknown): void => {}
  const asked = shopThatAnswers({
    'PUT /api/items/1/packs': () => new Promise((resolve) => (answerFirst = resolve)),
    'PUT /api/items/2/packs': () => ({ itemId: 2 }),
  })
  const shown = await changeBoth()
  await settle()
  expect(puts(asked).map(({ route }) => route)).toEqual(['PUT /api/items/1/packs'])
  await act(async () => answerFirst({ itemId: 1 }))
  await waitFor(() => expect(shown).toEqual([1, 2]))
})

test('where the first of them is refused, the second goes all the same', async () => {
  shopThatAnswers({
    'PUT /api/items/1/packs': () => ({ status: 409, code: 'taken', message: 'Somebody changed it meanwhile.' }),
    'PUT /api/items/2/packs': () => ({ itemId: 2 }),
  })
  const shown = await changeBoth()
  await waitFor(() => expect(shown).toEqual([2]))
})

/** Something that needs nothing more than to be pressed. */
function Close() {
  const { run } = useIdempotentMutation((_: undefined) => call('POST /api/batches/:id/close', { params: { id: 5 } }), {
    of: 'batch 5',
  })
  return (
    <button type="button" onClick={() => run(undefined)}>
      Close
    </button>
  )
}

test('what has no input goes to the shop, once while it is unanswered, and again after an answer', async () => {
  const answers: ((answer: unknown) => void)[] = []
  const asked = shopThatAnswers({
    'POST /api/batches/5/close': () => new Promise((resolve) => answers.push(resolve)),
  })
  const { person } = show(<Close />)
  const pressed = async () => {
    await person.click(screen.getByRole('button', { name: 'Close' }))
    await settle()
    return asked.length
  }
  expect(await pressed()).toBe(1)
  expect(await pressed()).toBe(1)
  await act(async () => answers[0]?.({ status: 409, code: 'taken', message: 'Not packed yet.' }))
  expect(await pressed()).toBe(2)
})
