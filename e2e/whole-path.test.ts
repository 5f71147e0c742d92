import { readFileSync } from 'node:fs'
import type { Page } from 'playwright-core'
import { choose, reads, rewrite, tray, type Visit, visit } from './browser'

let here: Visit
let page: Page
beforeAll(async () => {
  here = await visit()
  page = await here.enter('bram', '/patterns')
})
afterAll(() => here.close())

const heading = (name: string | RegExp) => page.getByRole('heading', { name }).first().waitFor()

test('a stone of another size: the ring and all its rounds follow', async () => {
  await page.getByRole('link', { name: /Windlass pendant/ }).click()
  await heading('Windlass pendant')
  await reads(tray(page), { A: '77', B: '11', C: '97', S: '1' })
  // 16 mm: 50.27 + 2.51 = 52.78 mm, / 1.3 = 40.6, and fours give 40: A 30 + 20 + 20, B 10, C 4 x 20 + 9.
  await rewrite(page, 'size classic', 'size classic  width = 16 mm   default')
  await reads(tray(page), { A: '70', B: '10', C: '89', S: '1' })
  await page.getByText('Ring of 40 round S', { exact: true }).waitFor()
  await page
    .getByRole('status')
    .getByText(/Draft saved/)
    .waitFor()
})

test('the text is kept as a version', async () => {
  await page.getByRole('button', { name: 'Save a version' }).click()
  await page.getByLabel('Name').fill('Sixteen')
  await page.getByRole('button', { name: 'Save version' }).click()
  await page.getByText('Version 2 saved.').waitFor()
  await page
    .getByRole('status')
    .getByText(/version 2 kept/)
    .waitFor()
})

test('another colourway, of another maker: fewer of its longer beads go round', async () => {
  await choose(page, 'Colourway', 'Ember and rust')
  // 50.27 + 2.67 = 52.94 mm, / 1.4 = 37.8: 36 is 4.8 % tight, 40 is 5.8 % big: A 27 + 18 + 18.
  await reads(tray(page), { A: '63', B: '9', C: '81', S: '1' })
  await page.getByRole('region', { name: 'Tray' }).getByText('Rust gate').waitFor()
  await choose(page, 'Colourway', 'Lantern')
  await reads(tray(page), { A: '70', B: '10', C: '89', S: '1' })
})

test('the written pattern agrees with the tray, and its PDF can be fetched', async () => {
  await page.getByRole('link', { name: 'Written', exact: true }).click()
  await page.getByText(/Version 2, .* · size classic · in Lantern/).waitFor()
  const row = page.getByRole('row', { name: /Lantern green/ })
  await reads(() => row.getByRole('cell').nth(2).textContent(), '70')
  await page.getByText('In one piece: 70 A, 10 B, 89 C.').waitFor()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download the PDF' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Windlass-pendant.pdf')
  expect(
    readFileSync(await download.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-')
})

test('twelve kits are planned and reserved, and the shelf promises them', async () => {
  await page.keyboard.press('Alt+4')
  await page.getByRole('link', { name: 'Plan a batch' }).click()
  await page.getByLabel('Name').fill('Evening class')
  await choose(page, 'Pattern', 'Windlass pendant')
  await choose(page, 'Size', 'petite')
  await page.getByRole('spinbutton', { name: 'Kits' }).fill('12')
  await page.getByText(/the shelf allows 36/).waitFor()
  await page.getByRole('button', { name: 'Save the plan' }).click()
  await heading('Evening class')
  await page.getByRole('button', { name: 'Reserve 12 kits' }).click()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()

  // 0.4 g of A a kit: 4.8 g, beside the 2.4 g that the Saturday class holds.
  await page.getByRole('link', { name: /Lantern green/ }).click()
  await heading('Lantern green')
  const promised = page.locator('dl > div', { hasText: 'promised to batches' }).locator('dd')
  await reads(() => promised.textContent(), '7.2 g')
  await page
    .getByRole('row', { name: /Evening class/ })
    .getByText('+4.8 g')
    .waitFor()
})

test('of five hundred it is said what is short, and none can be reserved', async () => {
  await page.goto(`${here.shop.base}/kits/plan`)
  await page.getByLabel('Name').fill('Far too many')
  await choose(page, 'Pattern', 'Windlass pendant')
  await choose(page, 'Size', 'petite')
  await page.getByRole('spinbutton', { name: 'Kits' }).fill('500')
  // 42 stones less 6 and 12 promised.
  await page.getByText(/the shelf allows 24, limited by round stone 14 mm Deep weir/).waitFor()
  await page
    .getByRole('row', { name: /round stone 14 mm/ })
    .getByText('from kit 25 on')
    .waitFor()
  await page.getByRole('button', { name: 'Save the plan' }).click()
  await heading('Far too many')
  expect(await page.getByRole('button', { name: 'Reserve 500 kits' }).isDisabled()).toBe(true)
  await page.getByRole('spinbutton', { name: 'Kits' }).fill('24')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Reserve 24 kits' }).click()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
})

test.each([
  ['0', 'A line has at least 1 kit.'],
  ['-1', 'A line has at least 1 kit.'],
  ['1.5', 'Kits are whole: give a number without a fraction.'],
  ['1000000000', 'A line has at most 10,000 kits.'],
])('%s kits are refused beside the field, and nothing typed is lost', async (kits, message) => {
  await page.goto(`${here.shop.base}/kits/plan?pattern=${await here.shop.idOf('pattern', 'Windlass pendant')}`)
  await page.getByLabel('Name').fill('Odd')
  await page.getByRole('spinbutton', { name: 'Kits' }).fill(kits)
  await page.getByRole('alert').getByText(message).waitFor()
  expect(await page.getByRole('button', { name: 'Save the plan' }).isDisabled()).toBe(true)
  expect(await page.getByLabel('Name').inputValue()).toBe('Odd')
})
