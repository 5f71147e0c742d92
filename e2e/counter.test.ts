/** Over the counter: beads by weight and a pattern with the buyer's name, sold, printed, and taken back in part. */
import type { Page } from 'playwright-core'
import { openList, reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
beforeAll(async () => {
  here = await visit()
  page = await here.enter('wren', '/counter')
})
afterAll(() => here.close())

const counter = () => page.getByRole('region', { name: 'On the counter' })
async function put(find: string, option: string): Promise<string> {
  await page.getByRole('combobox', { name: 'What is sold' }).fill(find)
  const found = openList(page).locator(`.ant-select-item-option[title*="${option}"]`).first()
  await found.waitFor()
  const name = (await found.getAttribute('title')) ?? ''
  await found.click()
  return name
}

test('several things lie on the counter, each with its price, and are still there after a reload', async () => {
  const beads = await put('rust gate', 'Rust gate')
  await counter()
    .getByRole('spinbutton', { name: /^How much of/ })
    .fill('2.5')
  const asked = () =>
    counter()
      .getByRole('spinbutton', { name: /^Price of/ })
      .first()
      .inputValue()
  await reads(async () => Number(await asked()) > 0, true)
  await counter()
    .getByRole('spinbutton', { name: /^Price of/ })
    .first()
    .fill('1.80')
  await put('windlass', 'Pattern: Windlass pendant')
  await counter().getByRole('spinbutton', { name: 'Price of Pattern: Windlass pendant' }).fill('6.50')
  await counter().getByLabel('Sold to').fill('Pochard')
  await counter().getByText('£8.30').waitFor()
  await page.reload()
  await counter().getByText('£8.30').waitFor()
  await counter().getByRole('listitem', { name: beads }).waitFor()
})

test('it is sold, with a receipt and the pattern in the name of whoever bought it', async () => {
  await counter().getByRole('button', { name: 'Sell' }).click()
  const receipt = page.getByRole('region', { name: 'Receipt' })
  await receipt.getByText('Merrowlock Bead Room').waitFor()
  await receipt.getByText('£8.30').waitFor()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    receipt.getByRole('link', { name: 'PDF' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Windlass-pendant.pdf')
  await receipt.getByRole('button', { name: 'Next customer' }).click()
  await counter().getByText('Nothing lies on the counter yet.').waitFor()
})

test('some of it comes back, for its share of the price', async () => {
  const sold = page.getByRole('region', { name: 'Sold' })
  await sold
    .getByRole('button', { name: /^Take back from sale/ })
    .first()
    .click()
  const dialog = page.getByRole('dialog')
  await dialog
    .getByRole('spinbutton', { name: /comes back$/ })
    .first()
    .fill('1')
  await dialog.getByRole('button', { name: 'Give back £0.72' }).click()
  await sold.getByText('1 g came back', { exact: false }).waitFor()
  await sold.getByText('£8.30, £0.72 given back').waitFor()
})
