/** A shop's first week: begun empty, it ends with a class taught, a kit sold, and figures that are right to the penny and the bead. */
import type { Page } from 'playwright-core'
import { emptyShop } from '../packages/server/test/shop'
import { beginShop, choose, openList, reads, type Visit, visit } from './browser'

let here: Visit
let owner: Page
let odile: Page
beforeAll(async () => {
  here = await visit(undefined, { BEGIN_TOKEN: 'as-printed' }, await emptyShop())
  owner = await here.stranger(here.shop.base)
})
afterAll(() => here.close())

const go = async (page: Page, at: string) => {
  await page.goto(here.shop.base + at)
  await page.getByRole('heading', { level: 1 }).first().waitFor()
}

test('the owner begins the shop, and lets the stockroom in', async () => {
  await beginShop(owner, here.shop.base, 'GBP')
  await owner.getByRole('region', { name: 'Getting started' }).waitFor()
  await go(owner, '/people')
  await owner.getByRole('button', { name: 'Add somebody' }).click()
  const form = owner.getByRole('dialog')
  await form.getByLabel('Name', { exact: true }).fill('Odile Marrow')
  await form.getByLabel('Sign-in name').fill('odile')
  await form.getByRole('checkbox', { name: /^stockroom/ }).check()
  await form.getByRole('checkbox', { name: /^counter/ }).check()
  await form.getByRole('checkbox', { name: /^teacher/ }).check()
  await form.getByRole('button', { name: 'Add' }).click()
  const link = await owner
    .getByRole('dialog', { name: 'A link for Odile Marrow' })
    .getByText(/\/welcome#/)
    .textContent()
  odile = await here.stranger((link ?? '').trim())
  await odile.getByLabel('New password').fill('a heron on the weir')
  await odile.getByLabel('Repeat the password').fill('a heron on the weir')
  await odile.getByRole('button', { name: 'Save and sign in' }).click()
  await odile.getByRole('heading', { name: 'Bench', exact: true }).waitFor()
})

/** Enough of everything but of the small brass beads, of which a kit takes about 0.1 g. */
const stock = [
  'code,category,maker,kind,size,colour code,colour name,colour,unit,place,length mm,across mm,hole mm,mg per bead,contact,bores,packs,lot,received,in lot',
  'RA1,bead,Brackwater Glass,round,11/0,RA-1,Moss,#4d6b3c,g,A1,1.5,2.1,0.8,9,0.9,1,8 g 4.00 7 days,RA1/1,2026-11-02,6',
  'RA2,bead,Brackwater Glass,round,11/0,RA-2,Plum,#5c2f4f,g,A1,1.5,2.1,0.8,9,0.9,1,8 g 4.00 7 days,RA2/1,2026-11-02,6',
  'RC1,bead,Brackwater Glass,round,15/0,RC-1,Brass,#b08a3a,g,A2,1.1,1.5,0.6,3.5,0.9,1,5 g 3.60 7 days,RC1/1,2026-11-02,0.1',
  'TH1,thread,Towpath Thread,braid,6 lb,TH-1,Smoke,#6d6a60,m,T1,,,,,,,50 m 5.00 5 days,TH1/1,2026-11-02,50',
].join('\n')

test('its stock comes in from a file', async () => {
  await go(odile, '/stock/files')
  await odile
    .locator('input[type=file]')
    .setInputFiles({ name: 'stock.csv', mimeType: 'text/csv', buffer: Buffer.from(stock) })
  await odile.getByText('4 new items, 4 new lots', { exact: false }).waitFor()
  await odile.getByRole('button', { name: 'Import' }).click()
  await odile.getByText('Done: 4 new items', { exact: false }).waitFor()
})

const panel = () => owner.getByRole('region', { name: 'Stitching' })
const lastLine = async () => {
  const all = await owner.getByLabel('The pattern in notation').locator('.cm-line').allInnerTexts()
  return all.map((line) => line.trim()).findLast(Boolean)
}

test('a flower is stitched by pointing', async () => {
  await go(owner, '/patterns')
  await owner.getByRole('button', { name: 'Begin a pattern' }).click()
  const dialog = owner.getByRole('dialog')
  await dialog.getByLabel('Its name').fill('Barge flower')
  await dialog.getByRole('radio', { name: 'a flower' }).check()
  await dialog.getByRole('button', { name: 'Begin', exact: true }).click()
  const plate = owner.getByRole('application')
  await plate.locator('canvas').waitFor()
  await owner.getByText('Thread, measured').waitFor()
  for (const line of ['pick C', 'pick 2C', 'pick 3C']) {
    await panel().getByRole('button', { name: 'C', exact: true }).click()
    await reads(lastLine, line)
  }
  // The first bead of the heart, nine back along the thread.
  await plate.focus()
  for (let i = 0; i < 9; i++) await owner.keyboard.press('ArrowLeft')
  const ring = await plate.locator('circle').boundingBox()
  await owner.keyboard.press('Escape')
  if (!ring) throw new Error('No bead is picked out.')
  await owner.mouse.click(ring.x + ring.width / 2, ring.y + ring.height / 2)
  await reads(lastLine, 'pick 3C >heart.first')
  await panel()
    .getByRole('list', { name: 'Proposals' })
    .getByText('round 3C into every bead', { exact: true })
    .first()
    .click()
  await reads(lastLine, 'round 3C into every bead')
  await owner
    .getByRole('status')
    .getByText(/Draft saved/)
    .waitFor()
})

test('it gets two colourways, and is published', async () => {
  await owner.getByRole('link', { name: 'Colours', exact: true }).click()
  for (const [name, bead] of [
    ['Moss', 'Moss'],
    ['Plum', 'Plum'],
  ] as const) {
    await owner.getByRole('button', { name: 'New colourway' }).click()
    const form = owner.getByRole('dialog')
    await form.getByLabel('Name').fill(name)
    const slots = await form
      .getByRole('combobox')
      .evaluateAll((all) => all.map((each) => each.getAttribute('aria-label') ?? ''))
    for (const label of slots.filter((each) => !each.startsWith('Instead'))) {
      await form.getByRole('combobox', { name: label, exact: true }).click()
      await owner.keyboard.type(label === 'Thread' ? 'Smoke' : label.startsWith('C') ? 'Brass' : bead)
      await owner.keyboard.press('Enter')
    }
    await form.getByRole('button', { name: 'Save colourway' }).click()
    await owner.getByText(`${name} is saved.`).waitFor()
  }
  await owner.getByRole('link', { name: 'Written', exact: true }).click()
  await owner.getByRole('button', { name: 'Check and publish' }).click()
  await owner.getByRole('button', { name: 'Publish version 1' }).click()
  await owner.getByText('Version 1 is published.').waitFor()
})

test('a class is offered and booked; its kits are short of brass', async () => {
  await go(owner, '/diary/classes/new')
  await owner.getByLabel('Class', { exact: true }).fill('Flowers on the barge')
  await owner.getByLabel('Where').fill('the cabin')
  await choose(owner, 'Who teaches', 'Odile Marrow')
  await owner.getByLabel('Seats').fill('2')
  await owner.getByLabel('A seat costs', { exact: false }).fill('30')
  await choose(owner, 'Pattern', 'Barge flower')
  await owner.getByRole('button', { name: 'Save the class' }).click()
  await owner.getByRole('heading', { name: 'Flowers on the barge' }).waitFor()
  for (const [seat, name] of [
    [1, 'Wren Alder'],
    [2, 'Teal Osier'],
  ] as const) {
    await owner.getByLabel(`Seat ${seat}`, { exact: true }).fill(name)
    await owner.getByLabel(`Seat ${seat}`, { exact: true }).press('Enter')
    await owner.getByRole('button', { name: `Free seat ${seat}` }).waitFor()
    await owner.getByLabel(`Paid for seat ${seat}`).fill('30')
    await owner.getByLabel(`Paid for seat ${seat}`).press('Enter')
  }
  await owner.getByRole('button', { name: 'Plan 3 kits' }).click()
  await owner.getByRole('link', { name: 'Its batch' }).click()
  await owner.getByText('more of round 15/0 Brass', { exact: false }).first().waitFor()
  expect(await owner.getByRole('button', { name: 'Reserve 3 kits' }).isDisabled()).toBe(true)
})

test('the brass is ordered, comes, and the kits are reserved', async () => {
  await go(odile, '/kits/buy')
  const supplier = odile.getByRole('region', { name: 'Brackwater Glass' })
  await supplier.getByRole('row', { name: /Brass.* 1 x 5 g £3\.60/ }).waitFor()
  await supplier.getByRole('button', { name: /^Ordered: .*Brass/ }).click()
  await odile
    .getByRole('region', { name: 'On its way' })
    .getByRole('button', { name: /^Mark received: .*Brass/ })
    .click()
  const dialog = odile.getByRole('dialog')
  await dialog.getByLabel('Lot, as the label says').fill('RC1/2')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  await odile.getByText('Nothing is short').waitFor()
  await odile.getByRole('link', { name: 'All batches' }).click()
  await odile.getByRole('link', { name: /Flowers on the barge/ }).click()
  await odile.getByRole('button', { name: 'Reserve 3 kits' }).click()
  await odile.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
})

/** What was put into bags, by the words of the target: "0.1 g". */
const packed: number[] = []

test('they are packed bag by bag, and closed', async () => {
  await odile.getByRole('link', { name: 'Pack', exact: true }).click()
  const bag = odile.getByRole('region', { name: 'This bag' })
  await odile.getByText('0 of 9 filled', { exact: false }).waitFor()
  for (let filled = 1; filled <= 9; filled++) {
    const target = (await bag.getByRole('status').first().textContent()) ?? ''
    const [, figure = '', unit = ''] = /([\d.]+) (g|m|pcs)/.exec(target) ?? []
    packed.push(Math.round(Number(figure) * 1000))
    await bag.getByLabel(`In the bag, ${unit}`).fill(figure)
    await bag.getByLabel(`In the bag, ${unit}`).press('Enter')
    await odile.getByText(`${filled} of 9 filled`, { exact: false }).waitFor()
  }
  await odile.getByRole('button', { name: 'Close the batch' }).click()
  await odile.getByText('Flowers on the barge is closed.').waitFor()
})

test('the class is taught, and the spare kit is sold over the counter to a customer on record', async () => {
  await go(owner, '/diary')
  await owner.goto(await here.pageOf('class', 'Flowers on the barge'))
  await owner.getByRole('button', { name: 'Taught' }).click()
  await owner.getByRole('button', { name: 'Mark as taught' }).click()
  await owner.getByText('Taught: each seat has its kit.').waitFor()
  await go(owner, '/customers')
  await owner.getByRole('button', { name: 'Add a customer' }).click()
  await owner.getByRole('dialog').getByLabel('Name').fill('Ness Pochard')
  await owner.getByRole('dialog').getByRole('button', { name: 'Add the customer' }).click()
  await owner.getByRole('heading', { level: 1, name: 'Ness Pochard' }).waitFor()

  await go(odile, '/counter')
  await odile.getByRole('combobox', { name: 'What is sold' }).fill('barge')
  await openList(odile)
    .getByTitle(/^Kit: /)
    .first()
    .click()
  const counter = odile.getByRole('region', { name: 'On the counter' })
  await counter.getByRole('spinbutton', { name: /^Price of/ }).fill('18.50')
  await counter.getByLabel('Sold to').fill('Ness')
  await openList(odile).getByTitle('Ness Pochard').click()
  await counter.getByRole('button', { name: 'Sell' }).click()
  await odile.getByRole('region', { name: 'Receipt' }).getByText('£18.50').first().waitFor()
})

test("the week's figures are right to the penny and the bead", async () => {
  await owner.reload()
  await owner.getByRole('region', { name: 'Bought over the counter' }).getByText('£18.50').waitFor()
  await go(odile, '/counter')
  await odile.getByRole('region', { name: 'Sold' }).getByText('£18.50').first().waitFor()
  const { rows } = await here.shop.pool.query<{ code: string; on_hand: string; reserved: string }>(
    `select item.code, total.on_hand, total.reserved from item_total total join item on item.id = total.item_id order by item.code`,
  )
  const of = new Map(rows.map((row) => [row.code, [Number(row.on_hand), Number(row.reserved)]]))
  // Every gram that went into a bag has left its tube, and nothing is promised any more.
  const [moss, brass, thread] = [0, 1, 2].map((i) =>
    packed.slice(3 * i, 3 * i + 3).reduce((sum, each) => sum + each, 0),
  )
  const taken = { RA1: [6000, moss], RC1: [5100, brass], TH1: [50_000, thread] } as const
  const left = Object.fromEntries(Object.entries(taken).map(([code, [had, used]]) => [code, [had - (used ?? 0), 0]]))
  for (const [code, both] of Object.entries(left)) expect([code, of.get(code)]).toEqual([code, both])
  expect(of.get('RA2')).toEqual([6000, 0])
  // Three kits were made: two sat in the class, one was sold.
  const kits = rows.filter(({ code }) => !['RA1', 'RA2', 'RC1', 'TH1'].includes(code))
  expect(kits.map((row) => Number(row.on_hand))).toEqual([0])
  await go(odile, '/stock?find=Plum')
  await odile.getByRole('link', { name: /Plum/ }).first().click()
  await reads(() => odile.locator('dl > div', { hasText: 'on hand' }).locator('dd').textContent(), '6 g')
  const day = new Date().toISOString().slice(0, 10)
  const csv = await odile.request.get(`${here.shop.base}/api/sales.csv?from=${day}&to=${day}`)
  expect((await csv.text()).trim().split(/\r?\n/).slice(1)).toEqual([
    expect.stringMatching(/,1,piece,18\.50,0\.00,GBP$/),
  ])
})
