import type { Page } from 'playwright-core'
import { choose, openList, reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
beforeAll(async () => {
  here = await visit()
  page = await here.enter('isaura', '/settings/measures')
})
afterAll(() => here.close())

test('a shop that measures in inches and ounces: what is typed is recorded right, and a form left alone changes nothing', async () => {
  await choose(page, 'On screens', 'Inches and ounces')
  await choose(page, 'Finger sizes', 'US')
  await page.getByRole('button', { name: 'Save' }).click()
  await page.getByText('The settings are saved.').waitFor()

  // A customer's finger by its size, a wrist in inches.
  await page.goto(`${here.shop.base}/customers`)
  await page.getByRole('button', { name: 'Add a customer' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Name').fill('Wigeon Ash')
  await dialog.getByLabel('Wrist').fill('6.5')
  await dialog.getByLabel('Finger').fill('US 7')
  await openList(page).getByTitle('US 7', { exact: true }).click()
  await dialog.getByRole('button', { name: 'Add the customer' }).click()
  await page.getByText('wrist 6.5 in, finger US 7').waitFor()
  const isaura = await here.shop.as('isaura')
  const { customers } = (await isaura.ask('GET', '/customers?find=wigeon')).body
  expect(customers[0].wristMm).toBeCloseTo(165.1, 5)
  expect(customers[0].fingerMm).toBeCloseTo(Math.PI * (11.63 + 0.8128 * 7), 5)

  // Half an ounce off the shelf is 14.175 g in the ledger; more than there is is refused, and what was typed stays.
  const green = await here.shop.idOf('item', 'BC101')
  const held = async () => (await isaura.ask('GET', `/items/${green}`)).body.onHand
  const before = await held()
  await page.goto(await here.pageOf('item', 'BC101'))
  const amount = page.getByLabel('How much, in oz')
  await amount.fill('9000')
  await page.getByLabel('Why').fill('sold by the half ounce')
  await page.getByRole('button', { name: /Post$/ }).click()
  await page.getByText(/Free of this lot: .* oz/).waitFor()
  expect(Number(await amount.inputValue())).toBe(9000)
  await amount.fill('0.5')
  await page.getByRole('button', { name: /Post$/ }).click()
  await page.getByText('The move is in the ledger.').waitFor()
  expect(before - (await held())).toBe(14_175)

  // Saved as it is: packs of 8 and 50 g and the reorder level stay to the milligram.
  const was = (await isaura.ask('GET', `/items/${green}`)).body
  await page.getByRole('button', { name: 'Change', exact: true }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click()
  await page.getByRole('dialog').waitFor({ state: 'detached' })
  const is = (await isaura.ask('GET', `/items/${green}`)).body
  expect([is.packs, is.reorderBelow]).toEqual([was.packs, was.reorderBelow])
})

test('an address that is none is refused beside what was typed; days off are kept', async () => {
  await page.goto(`${here.shop.base}/settings/devices`)
  await page.getByLabel('Scale').fill('http://scale')
  await page.getByRole('button', { name: 'Save' }).click()
  await page.getByText('An address is a name and a port', { exact: false }).waitFor()
  expect(await page.getByLabel('Scale').inputValue()).toBe('http://scale')

  await page.goto(`${here.shop.base}/settings/days`)
  await choose(page, 'Closed every', 'Sunday')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Save' }).click()
  await page.getByText('The settings are saved.').first().waitFor()
  const isaura = await here.shop.as('isaura')
  await reads(async () => (await isaura.ask('GET', '/settings')).body.days.closed, [0])
})
