import type { Page } from 'playwright-core'
import { reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
let windlass: string
beforeAll(async () => {
  here = await visit()
  windlass = await here.pageOf('pattern', 'Windlass pendant')
  page = await here.enter('bram', '/patterns')
})
afterAll(() => here.close())

const answer = () => page.getByRole('region', { name: 'Answer' })

test('a stone: what goes round it, the wall that holds it, and its lines in a pattern', async () => {
  await page.keyboard.press('Alt+6')
  await page.getByLabel('Across, mm').fill('18')
  await page.getByLabel('The count must divide by').fill('4')
  await page.getByRole('button', { name: 'Work it out' }).click()
  await answer()
    .getByRole('row', { name: /^44, the best -3\.2 % snug/ })
    .waitFor()
  await answer()
    .getByText(/That holds\./)
    .waitFor()
  await answer().getByRole('combobox', { name: 'Pattern' }).click()
  await page.keyboard.type('Capstan')
  await page.keyboard.press('Enter')
  await answer().getByRole('button', { name: 'Use in this pattern' }).click()
  await page.getByRole('heading', { name: 'Capstan ring' }).waitFor()
  await page.locator('.cm-line', { hasText: 'ring 44A' }).waitFor()
})

test('a stone that cannot be is refused in words, and the fields keep what was typed', async () => {
  await page.goto(`${here.shop.base}/desk`)
  await page.getByLabel('Height, mm').fill('0')
  await page.getByRole('button', { name: 'Work it out' }).click()
  await answer()
    .getByRole('alert')
    .getByText(/height of the stone.*above 0/i)
    .waitFor()
  await reads(() => page.getByLabel('Height, mm').inputValue(), '0')
})

test('a wrist: repeats either side of its length; one that nobody has is refused', async () => {
  await page.goto(`${here.shop.base}/desk?question=length`)
  // 165 + 18 mm less 25 of clasp, in repeats of 8.4 mm: 18.8.
  await answer().getByText('The piece is 183.0 mm long, which is 18.81 repeats.').waitFor()
  await answer()
    .getByRole('row', { name: /^19, the best 184\.6 mm \+1\.6 mm/ })
    .waitFor()
  await page.getByLabel('Wrist', { exact: true }).fill('299')
  await answer()
    .getByText(/larger than any\. Check the unit/)
    .waitFor()
})

test("the makers' table says what another maker's bead changes", async () => {
  await page.goto(`${windlass}/makers?size=petite`)
  const row = page.getByRole('row', { name: /^A cylinder 11\/0 Tollhouse Beads/ })
  await row.getByText('A 63 -> 56').waitFor()
  await page.getByText('classic', { exact: true }).click()
  await row.getByText('the same').first().waitFor()
})

test('the command bar answers a question of the desk in place, finds customers, reserves a batch, and ? tells the keys', async () => {
  await page.goto(`${here.shop.base}/bench`)
  await page.getByRole('heading', { name: 'Bench', exact: true }).waitFor()
  await page.keyboard.press('Control+k')
  const bar = page.getByRole('combobox', { name: 'Find' })
  await bar.fill('fit 14 mm round with cylinder 11/0')
  await page.getByText('A ring of 36 cylinder 11/0 on a stone "round 14 mm": sits snug.').waitFor()
  // What is typed there is no key for the page.
  await bar.fill('ness?')
  await bar.fill('ness')
  await page.getByRole('option', { name: /Ness Pochard/ }).waitFor()
  await page.keyboard.press('Escape')
  await bar.waitFor({ state: 'detached' })
  await page.keyboard.press('?')
  await page.getByRole('dialog', { name: 'Keys' }).getByText('Takes what is proposed').waitFor()
  await page.keyboard.press('Escape')
  await page.getByRole('dialog', { name: 'Keys' }).waitFor({ state: 'hidden' })

  // It does things, too.
  await page.keyboard.press('Control+k')
  await bar.fill('reserve market')
  await page.getByRole('option', { name: /Reserve Market table/ }).waitFor()
  await bar.press('Enter')
  await page.getByText('Market table is reserved', { exact: false }).waitFor()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
})
