import { type Visit, visit } from './browser'

let here: Visit
beforeAll(async () => {
  here = await visit()
})
afterAll(() => here.close())

test('a shortage is bought, received and promised', async () => {
  const page = await here.enter('odile')
  await page.keyboard.press('Alt+4')
  await page.getByRole('link', { name: 'What to buy' }).click()
  const supplier = page.getByRole('region', { name: 'Tollhouse Beads' })
  await supplier.getByRole('row', { name: /Rust gate.* 3\.6 g 2 x 8 g £5\.40 .*Lock keepers’ evening/ }).waitFor()
  await supplier.getByRole('button', { name: /^Received: .*Rust gate/ }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  await dialog.getByText('Give the lot a code.').waitFor()
  await dialog.getByLabel('Lot, as the label says').fill('TR108/4')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  await supplier.getByRole('row', { name: /Rust gate/ }).waitFor({ state: 'detached' })
  await page.getByRole('link', { name: 'All batches' }).click()
  await page.getByRole('link', { name: /Lock keepers’ evening/ }).click()
  await page.getByText('the shelf has it all').waitFor()
  await page.getByRole('button', { name: 'Reserve 24 kits' }).click()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
})
