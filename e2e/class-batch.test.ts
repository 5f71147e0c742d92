import type { Packing } from '@tessellum/contract/packing'
import { type StandIn, standIn } from '../packages/server/test/stand-in'
import { choose, type Visit, visit } from './browser'

let here: Visit
let devices: Record<'scale' | 'printer' | 'scanner' | 'supplier', StandIn>
beforeAll(async () => {
  devices = {
    scale: await standIn('scale'),
    printer: await standIn('printer'),
    scanner: await standIn('scanner'),
    supplier: await standIn('supplier'),
  }
  const envs = Object.values(devices).map(({ env }) => env)
  here = await visit(undefined, Object.assign({}, ...envs))
})
afterAll(async () => {
  await here.close()
  for (const each of Object.values(devices)) each.end()
})

test('a class batch from plan to closed: short, bought, received, reserved, changed, labelled, packed, closed, one kit back', async () => {
  const page = await here.enter('odile')
  const odile = await here.shop.as('odile')

  // Planned: the rust beads are there for six kits, and eight are wanted.
  await page.keyboard.press('Alt+4')
  await page.getByRole('link', { name: 'Plan a batch' }).click()
  await page.getByLabel('Name').fill('Eight at the lock')
  await choose(page, 'Pattern', 'Sluicegate pendant')
  await choose(page, 'Colourway', 'Ochre lock')
  await choose(page, 'Size', 'small')
  await page.getByLabel('Kits').fill('8')
  await page.getByText('the shelf allows 6', { exact: false }).waitFor()
  await page.getByRole('button', { name: 'Save the plan' }).click()
  await page.waitForURL(/\/kits\/\d+$/)
  await page.getByText('8 g more of round 11/0 Rust gate', { exact: false }).first().waitFor()
  const batchId = Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0])

  // Bought at today's price, and received against the order.
  await devices.supplier.play({ times: 1.1 })
  await page.goto(`${here.shop.base}/kits/buy`)
  const tollhouse = page.getByRole('region', { name: 'Tollhouse Beads' })
  await tollhouse.getByRole('button', { name: 'Ask for today’s prices' }).click()
  await tollhouse.getByRole('button', { name: /^Save these prices: round 11/ }).click()
  await tollhouse.getByText('£5.94').first().waitFor()
  await tollhouse.getByRole('button', { name: /^Ordered: .*Rust gate/ }).click()
  const coming = page.getByRole('region', { name: 'On its way' })
  await coming.getByRole('button', { name: /^Mark received: .*Rust gate/ }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Lot, as the label says').fill('TR108/9')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  await coming.waitFor({ state: 'detached' })

  // Reserved, and one seat fewer after that.
  await page.goto(`${here.shop.base}/kits/${batchId}`)
  await page.getByRole('button', { name: 'Reserve 8 kits' }).click()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
  await page.getByLabel('Kits').fill('7')
  await page.getByLabel('Kits').press('Enter')
  await page.getByText('7 kits', { exact: false }).first().waitFor()

  // Its name follows, and what it holds stays.
  await page.getByRole('link', { name: 'Change', exact: true }).click()
  await page.getByLabel('Name').fill('Seven at the lock')
  await page.getByRole('button', { name: 'Save the plan' }).click()
  await page.getByRole('heading', { name: 'Seven at the lock' }).waitFor()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()

  // Labels: the printer is jammed at first.
  const papers = page.getByRole('region', { name: 'Papers' })
  await devices.printer.play({ fault: 'jam', on: true })
  await papers.getByRole('button', { name: 'Print kit labels' }).click()
  await papers.getByText('The label printer is jammed.', { exact: false }).waitFor()
  await devices.printer.play({ fault: 'jam', on: false })
  await papers.getByRole('button', { name: 'Print kit labels' }).click()
  await page.getByText('7 labels printed.').waitFor()

  // Packed: a tube is opened by its label, another's is turned away, and the scale is believed once it is steady.
  await page.getByRole('link', { name: 'Pack', exact: true }).click()
  await page.getByRole('heading', { name: 'Packing Seven at the lock' }).waitFor()
  const packing = async () => (await odile.ask<Packing>('GET', `/batches/${batchId}/packing`)).body
  const [, copper] = (await packing()).tasks
  if (!copper) throw new Error('there is no second tube')
  const bag = page.getByRole('region', { name: 'This bag' })
  const scanned = async (code: string, until: () => Promise<void>) => {
    const again = setInterval(() => void devices.scanner.play({ scan: code }), 900)
    await until()
    clearInterval(again)
  }
  await scanned('TSL-1', () => page.getByText('is in none of these bags', { exact: false }).waitFor())
  await scanned(`TSL-${copper.lotId}`, () => bag.getByRole('heading', { name: copper.name }).waitFor())
  await page.getByText('is in none of these bags', { exact: false }).waitFor({ state: 'detached' })
  const grams = (copper.bags[0]?.target ?? 0) / 1000 + 0.01
  await devices.scale.play({ grams })
  await bag.getByText(`${grams} g`, { exact: true }).waitFor()
  await bag.getByText('steady', { exact: true }).waitFor()
  await bag.getByLabel('In the bag, g').press('Enter')
  await page.getByText('1 of 42 filled', { exact: false }).waitFor()

  // Some of it is spilt: the ledger knows, and the bags go on.
  await bag.getByText('Something is wrong with this tube').click()
  await bag.getByLabel('Lost, g').fill('0.5')
  await bag.getByRole('button', { name: 'Record as spilt' }).click()
  await page.getByText('Loss recorded.', { exact: false }).waitFor()

  // A second packer has filled the rest meanwhile, and this page hears of it.
  const isaura = await here.shop.as('isaura')
  for (const { itemId, bags } of (await packing()).tasks)
    for (const { lineId, kit, target, filled } of bags)
      if (filled === null)
        await isaura.ask('PUT', `/batches/${batchId}/bags`, { lineId, kit, itemId, quantity: target })
  await page.getByText('42 of 42 filled', { exact: false }).waitFor()
  await page.getByRole('button', { name: 'Close the batch' }).click()
  await page.getByText('Seven at the lock is closed.').waitFor()

  // A whole kit comes back; the others are on the kits' shelf.
  await page.getByRole('button', { name: /^Something came back of kit 3/ }).click()
  await page.getByRole('button', { name: 'The whole kit, unopened' }).click()
  await page.getByText('came back whole').waitFor()
  await page.goto(`${here.shop.base}/stock?show=kits`)
  await page.getByRole('row', { name: /Sluicegate pendant, Ochre lock.* 6 pcs/ }).waitFor()

  // And the owner can read it all.
  const owner = await here.enter('isaura')
  await owner.goto(`${here.shop.base}/audit`)
  const done = ['planned Eight', 'reserved 8 kits of Eight', 'renamed Eight at the lock to Seven', 'closed Seven']
  for (const what of done)
    await owner
      .getByRole('link', { name: `${what} at the lock` })
      .first()
      .waitFor()
  await owner.getByRole('link', { name: 'spilt beads of lot', exact: false }).waitFor()
})

test('a place is counted tube by tube, Enter after Enter, and what differs is posted', async () => {
  const page = await here.enter('odile')
  await page.goto(`${here.shop.base}/stock/count`)
  await choose(page, 'Which place', 'A2')
  await page.getByRole('button', { name: 'Freeze it and count' }).click()
  await page.getByRole('heading', { name: 'Counting A2' }).waitFor()
  const fields = page.getByRole('table').getByRole('spinbutton')
  await fields.first().fill('10')
  await page.keyboard.press('Enter')
  await page.getByText('1 tube differs', { exact: false }).waitFor()
  await page.getByText(`1 of ${await fields.count()} counted`, { exact: false }).waitFor()
  expect(await fields.nth(1).evaluate((field) => field === document.activeElement)).toBe(true)
  await page.reload()
  await page.getByRole('button', { name: 'Post 1 difference' }).click()
  await page.getByText('The differences are posted.').waitFor()
  await page.getByText('posted', { exact: false }).first().waitFor()
})

test('a file of stock is told before it is taken in; its faults keep all of it out', async () => {
  const page = await here.enter('odile')
  await page.goto(`${here.shop.base}/stock/files`)
  const heads =
    'code,category,maker,kind,size,colour name,colour,unit,length mm,across mm,hole mm,mg per bead,lot,received,in lot'
  const row = (code: string, mass: string) =>
    `${code},bead,Nearby Makers,round,8/0,Lamplight ${code},#c9a24a,g,2,3,1,${mass},${code}/1,2026-11-01,40`
  const choice = page.locator('input[type=file]')
  const file = (...rows: string[]) => ({
    name: 'list.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([heads, ...rows].join('\n')),
  })
  await choice.setInputFiles(file(row('Q1', '26'), row('Q2', '-26')))
  await page.getByText('1 error in 2 rows', { exact: false }).waitFor()
  await page.getByRole('cell', { name: 'mg per bead' }).waitFor()
  await choice.setInputFiles(file(row('Q1', '26'), row('Q2', '26')))
  await page.getByText('2 new items, 2 new lots', { exact: false }).waitFor()
  await page.getByRole('button', { name: 'Import' }).click()
  await page.getByText('File imported.').waitFor()
  await page.goto(`${here.shop.base}/stock?find=lamplight`)
  await page.getByRole('row', { name: /Lamplight Q2.* 40 g/ }).waitFor()
})
