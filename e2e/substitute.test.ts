import type { Page } from 'playwright-core'
import { type Visit, visit } from './browser'

let here: Visit
let page: Page
let batch: number
let colourway: number

interface Coded {
  readonly id: number
  readonly code: string
}

/** A class of six in a green of which the shelf has next to nothing. */
beforeAll(async () => {
  here = await visit()
  const bram = await here.shop.as('bram')
  const { body: items } = await bram.ask('GET', '/items')
  const { body: lantern } = await bram.ask('GET', '/patterns/1/colourways')
  const scarce = (items as Coded[]).find(({ code }) => code === 'BC-164' || code === 'BC164')
  const choices = lantern[0].choices.map((choice: { role: string }) =>
    choice.role === 'A' ? { ...choice, itemId: scarce?.id } : choice,
  )
  colourway = (await bram.ask('POST', '/patterns/1/colourways', { name: 'Duckweed', choices })).body.id
  const line = { patternId: 1, version: 1, size: 'petite', colourwayId: colourway, kits: 6 }
  batch = (await bram.ask('POST', '/batches', { name: 'Duckweed class', dueOn: '2027-03-01', lines: [line] })).body.id
  page = await here.enter('bram')
})
afterAll(() => here.close())

test('a class that is short is rescued by a bead of another maker, and every count follows', async () => {
  await page.goto(`${here.shop.base}/kits/${batch}`)
  await page.getByText('short', { exact: true }).waitFor()
  await page.getByRole('link', { name: 'What could stand in for A?' }).click()
  const found = page.getByRole('list', { name: 'Substitutes, best first' })
  // The other maker's are longer: 32 go round for 36, so A 24 + 16 + 16, B 8, C 4 x 16 + 9.
  const other = found.getByRole('listitem').filter({ hasText: 'counts: A 63 -> 56, B 9 -> 8, C 81 -> 73' }).first()
  await other.getByText(/rescues [3-6]/).waitFor()
  await other.getByRole('button', { name: 'Use it' }).click()
  await page.getByText('Duckweed is version 2 now.', { exact: false }).waitFor()

  await page.goto(`${here.shop.base}/kits/${batch}`)
  await page.getByText('this line keeps version 1', { exact: false }).waitFor()
  await page.getByRole('button', { name: 'Plan with version 2' }).click()
  await page.getByText('the shelf has it all').waitFor()
  await page.getByRole('button', { name: 'Reserve 6 kits' }).click()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
  await page.getByText('What goes into each kit').click()
  await page.getByRole('row', { name: /^A .*56 exact/ }).waitFor()
})

test('the written pattern follows', async () => {
  await page.goto(`${here.shop.base}/patterns/1/written?version=1&size=petite&colourway=${colourway}`)
  await page.getByText('In one piece: 56 A, 8 B, 73 C.').waitFor()
})

test('a colourway is judged as other eyes see it', async () => {
  await page.goto(`${here.shop.base}/patterns/1/colours`)
  const lantern = page.getByRole('article', { name: 'Lantern' })
  await lantern.getByText(/A and B stand out from each other: 33\.9 apart/).waitFor()
  await page.getByText('warm light').click()
  await lantern.getByText(/A and B stand out from each other: (?!33\.9)/).waitFor()
})
