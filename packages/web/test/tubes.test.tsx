/** Tubes: moved, weighed, labelled on the shelf; spilt, missing and exchanged at the packing bench. */
import type { Packing } from '@tessellum/contract/packing'
import type { ItemStory, Lot } from '@tessellum/contract/stock'
import { screen, waitFor } from '@testing-library/react'
import { Mishaps } from '../src/packing/mishaps'
import { Lots } from '../src/stock/lots'
import { aBag, anItem, changesIn, namedItem, shopThatAnswers, show } from './on-screen'

const lot = (id: number, more: Partial<Lot> = {}): Lot => ({
  id,
  code: `L${id}`,
  receivedOn: '2026-02-01',
  onHand: 9000,
  reserved: 2000,
  inBags: 0,
  place: 'A1',
  supplier: '',
  unitCost: 0.06,
  mgPerBead: null,
  ...more,
})
const item: ItemStory = {
  ...anItem,
  lots: [lot(9), lot(10, { mgPerBead: 5.6, inBags: 1500, unitCost: null, place: '' })],
}

describe('on the shelf', () => {
  const shelf = (mayMove = true) => {
    const asked = shopThatAnswers({
      'POST /api/lots/9/transfer': () => ({ lotId: 9 }),
      'POST /api/lots/9/weighing': () => ({ lotId: 9 }),
      'POST /api/lots/10/label': () => ({ status: 503, code: 'no-printer', message: 'The printer is off.', hint: '' }),
    })
    const page = show(<Lots item={item} mayMove={mayMove} />, {
      data: [[['stocktakes', 'places'], [{ place: 'B2', lots: 3 }]]],
    })
    return { ...page, asked: () => changesIn(asked) }
  }
  const start = (what: string, of = 'L9, A1') => screen.getByRole('button', { name: `${what}: lot ${of}` })

  test('each lot says where it lies, what a bead of it weighs and what it cost, as far as that is known', () => {
    shelf(false)
    const rows = screen.getAllByRole('row').map((each) => each.textContent)
    expect(rows[1]).toContain('A1, since 1 Feb 2026, £0.60 per g')
    expect(rows[2]).toContain('no place, since 1 Feb 2026, 5.6 mg a bead')
    expect(rows[2]).toContain('1.5 g in bags')
    expect(screen.queryAllByRole('button')).toEqual([])
  })

  test('the whole tube is moved unless it is said how much of it', async () => {
    const { person, asked } = shelf()
    await person.click(start('Move'))
    await person.click(screen.getByRole('button', { name: 'Move it' }))
    await screen.findByText('Say where.')
    await person.type(screen.getByRole('combobox', { name: 'To' }), 'B2')
    await person.click(screen.getByRole('button', { name: 'Move it' }))
    await waitFor(() => expect(asked()).toHaveLength(1))
    await person.click(start('Move'))
    await person.type(screen.getByRole('combobox', { name: 'To' }), 'C3')
    await person.type(screen.getByRole('spinbutton', { name: /^How much, g/ }), '2.5')
    await person.click(screen.getByRole('button', { name: 'Move it' }))
    await waitFor(() => expect(asked()).toHaveLength(2))
    expect(asked().map(([, body]) => body)).toEqual([{ place: 'B2' }, { place: 'C3', quantity: 2500 }])
  })

  test('what a bead weighs is told from what lies on the scale, beside what is usual', async () => {
    const { person, asked } = shelf()
    await person.click(start('Weigh'))
    await person.type(screen.getByRole('spinbutton', { name: 'Their weight, g' }), '0.56')
    await screen.findByText('5.60 mg')
    expect(screen.getByRole('status').textContent).toBe('5.60 mg a bead; 5.2 mg are usual for it')
    await person.click(screen.getByRole('button', { name: 'Use this weight' }))
    await waitFor(() => expect(asked()).toHaveLength(1))
    const [, body] = asked()[0] as [string, { beads: number; mg: number }]
    expect(body.beads).toBe(100)
    expect(body.mg).toBeCloseTo(560)
  })

  test('a printer that is off says so where the label was asked for', async () => {
    const { person } = shelf()
    await person.click(start('Label', 'L10'))
    await screen.findByText(/The printer is off/)
  })
})

describe('at the packing bench', () => {
  const packing = (lotId: number | null): Packing => ({
    id: 4,
    name: 'Saturday class',
    state: 'packing',
    kits: 1,
    tasks: [
      {
        itemId: 1,
        name: 'cylinder 11/0 Lantern green',
        item: namedItem(1, 'Lantern green'),
        unit: 'mg',
        cautions: '',
        lotId,
        lotCode: lotId === null ? '' : `L${lotId}`,
        place: 'A1',
        bags: [aBag],
      },
    ],
  })
  const bench = (lotId: number | null, lots = [lot(9), lot(10), lot(11, { reserved: 9000 })]) => {
    const of = packing(lotId)
    const asked = shopThatAnswers({
      'POST /api/batches/4/losses': () => of,
      'POST /api/batches/4/swaps': () => of,
      'POST /api/batches/4/lay-out': () => ({ status: 409, code: 'short', message: 'There is still none.', hint: '' }),
    })
    const [task] = of.tasks
    if (!task) throw new Error('There is a task.')
    const page = show(<Mishaps packing={of} task={task} />, { data: [[['stock', 1], { ...item, lots }]] })
    return { ...page, asked: () => changesIn(asked) }
  }

  test('what was spilt or is missing is put down as such', async () => {
    const { person, asked } = bench(9)
    const lost = screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Lost, g' })
    for (const [how, grams] of [
      ['spilt', '0.8'],
      ['missing', '2'],
    ] as const) {
      const record = screen.getByRole<HTMLButtonElement>('button', { name: `Record as ${how}` })
      expect(record.disabled).toBe(true)
      await person.type(lost, grams)
      await person.click(record)
      await waitFor(() => expect(lost.value).toBe(''))
    }
    expect(asked().map(([, body]) => body)).toEqual([
      { itemId: 1, lotId: 9, how: 'spilt', quantity: 800 },
      { itemId: 1, lotId: 9, how: 'missing', quantity: 2000 },
    ])
  })

  test('another lot is taken that has some free, never the same one', async () => {
    const { person, asked } = bench(9)
    await person.click(screen.getByRole('combobox', { name: 'Another lot' }))
    const options = await screen.findAllByText(/free$/)
    expect([...new Set(options.map((each) => each.textContent))]).toEqual(['L10, A1, 7 g free'])
    await person.click(options.at(-1) as HTMLElement)
    await person.click(screen.getByRole('button', { name: 'Use this lot for the unfilled bags' }))
    await waitFor(() => expect(asked()).toHaveLength(1))
    expect(asked()[0]?.[1]).toEqual({ itemId: 1, fromLotId: 9, toLotId: 10 })
  })

  test('bags that no lot holds anything for are laid out anew, or it is said why not', async () => {
    const { person } = bench(null)
    screen.getByText(/No lot holds this for 1 bag any more/)
    await person.click(screen.getByRole('button', { name: 'Lay out again' }))
    await screen.findByText(/There is still none/)
  })
})
