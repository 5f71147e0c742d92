import type { Page } from 'playwright-core'
import { beginExample, choose, reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
let windlass: string
beforeAll(async () => {
  here = await visit()
  windlass = await here.pageOf('pattern', 'Windlass pendant')
  page = await here.enter('isaura', '/patterns')
})
afterAll(() => here.close())

const figure = (label: string) => () => page.locator('dl > div', { hasText: label }).first().locator('dd').textContent()

test('a colourway is changed to another bead of the shelf, and the piece, the counts and the list follow', async () => {
  await page.goto(`${windlass}/colours`)
  const lantern = page.getByRole('article', { name: 'Lantern' })
  await lantern.getByText('Lantern green').waitFor()
  await lantern.getByRole('button', { name: 'Change' }).click()
  const form = page.getByRole('dialog')
  await form.getByRole('combobox', { name: 'A, frame' }).click()
  await page.keyboard.type('Soot')
  await page.keyboard.press('Enter')
  await form.getByRole('button', { name: 'Save colourway' }).click()
  await lantern.getByText('version 2').waitFor()
  // Tollhouse cylinders are 1.4 mm long: 59.2 / 1.4 = 42.3, so 44 of them (+4 %) in fours.
  await lantern.getByText('Soot').waitFor()
  await lantern.getByText('A 77').waitFor()
})

test('a new colourway says what it still lacks, and a name that is taken is refused beside the form', async () => {
  await page.getByRole('button', { name: 'New colourway' }).click()
  const form = page.getByRole('dialog')
  await form.getByLabel('Name').fill('Lantern')
  await form.getByRole('button', { name: 'Save colourway' }).click()
  await form.getByRole('alert').getByText('called "Lantern" already').waitFor()
  await form.getByLabel('Name').fill('Half chosen')
  await form.getByRole('button', { name: 'Save colourway' }).click()
  const half = page.getByRole('article', { name: 'Half chosen' })
  await half.getByText('no item chosen').first().waitFor()
})

test('a sale is posted and stands in the ledger; more than is free is refused and what was typed stays', async () => {
  await page.goto(`${here.shop.base}/stock?find=Damson`)
  await page.getByRole('link', { name: 'Damson' }).click()
  await page.getByRole('heading', { name: 'Damson' }).waitFor()
  const before = Number.parseFloat((await figure('on hand')()) ?? '')
  await page.getByLabel('How much, in g').fill('2.5')
  await page.getByLabel('Why').last().fill('counter, a regular')
  await page.getByRole('button', { name: 'Post' }).click()
  await page.getByText('The move is in the ledger.').waitFor()
  await reads(async () => Number.parseFloat((await figure('on hand')()) ?? ''), Number((before - 2.5).toFixed(1)))
  await page
    .getByRole('row', { name: /counter, a regular/ })
    .getByText('−2.5 g')
    .waitFor()

  await page.getByLabel('How much, in g').fill('5000')
  await page.getByLabel('Why').last().fill('too much')
  await page.getByRole('button', { name: 'Post' }).click()
  await page
    .getByRole('alert')
    .getByText(/Free of this lot/)
    .waitFor()
  expect(await page.getByLabel('Why').last().inputValue()).toBe('too much')
})

test('what a batch holds is given back and can be taken again; called off, it is over; also on a machine without a network', async () => {
  await page.goto(await here.pageOf('batch', 'Winter fair shelf'))
  // The browser says so of the machine; the shop is on the machine itself.
  await page.evaluate(() => dispatchEvent(new Event('offline')))
  await page.getByRole('button', { name: 'Give back' }).click()
  await page.getByRole('button', { name: 'Reserve 12 kits' }).click()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
  await page.getByText('What goes into each kit').click()
  await page.getByText('122 exact + 13 spare').waitFor()
  await page.getByRole('button', { name: 'Call off' }).click()
  await page.getByRole('button', { name: 'Leave it' }).click()
  await page.getByRole('button', { name: 'Call off' }).click()
  await page.getByRole('button', { name: 'Call the batch off' }).click()
  await page.getByText('called off').first().waitFor()
  expect(await page.getByRole('button', { name: /Reserve|Give back|Call off/ }).count()).toBe(0)
})

test('the shelf is narrowed by kind, by need and by words, and by nothing that is not there', async () => {
  await page.goto(`${here.shop.base}/stock`)
  await page.getByText(/^2\d\d items$/).waitFor()
  await page.getByText('stones', { exact: true }).click()
  await page.getByText('14 items', { exact: true }).waitFor()
  const low = page.getByText(/^running low \(\d+\)$/)
  const [, count] = /\((\d+)\)/.exec((await low.textContent()) ?? '') ?? []
  await low.click()
  await page.getByText(new RegExp(`^${count} items?$`)).waitFor()
  await page.getByText('all', { exact: true }).click()
  await page.getByRole('searchbox').fill('kingfisher round')
  await page.getByText('1 item', { exact: true }).waitFor()
  await page.getByRole('searchbox').fill('unobtainium')
  await page.getByText('Nothing on the shelf matches.').waitFor()
})

test('a list is gone through by arrows, from row to row and to its ends, and opened by Enter', async () => {
  const page = await here.enter('isaura', '/kits')
  const rows = page.getByRole('main').getByRole('link', { name: /kits/ })
  await rows.nth(2).waitFor()
  const names = await rows.allTextContents()
  const focused = () => page.evaluate(() => document.activeElement?.textContent)
  await rows.nth(0).focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  expect(await focused()).toBe(names[2])
  await page.keyboard.press('ArrowUp')
  expect(await focused()).toBe(names[1])
  await page.keyboard.press('End')
  await page.keyboard.press('ArrowDown')
  expect(await focused()).toBe(names.at(-1))
  await page.keyboard.press('Home')
  await page.keyboard.press('Enter')
  await page.waitForURL(/\/kits\/\d+$/)
})

test('another page begins at its top, and back finds a list where it was left', async () => {
  const page = await here.enter('isaura', '/stock')
  const scrolled = () => page.getByRole('main').evaluate((main) => Math.round(main.scrollTop))
  const row = page.getByRole('main').getByRole('row').nth(40)
  await row.scrollIntoViewIfNeeded()
  const left = await scrolled()
  expect(left).toBeGreaterThan(300)
  await row.getByRole('link').first().click()
  await page.waitForURL(/\/stock\/\d+$/)
  await page.getByRole('heading', { name: 'Moves' }).waitFor()
  expect(await scrolled()).toBe(0)
  await page.goBack()
  await row.waitFor()
  await reads(async () => String(Math.abs((await scrolled()) - left) < 3), 'true')
})

test('a new pattern opens with a small bezel, and a line in hand is told', async () => {
  await page.keyboard.press('Alt+2')
  await beginExample(page)
  await page.getByRole('heading', { name: 'New pattern' }).waitFor()
  await page.getByRole('img', { name: /^New pattern from the front, 108 beads/ }).waitFor()
  await page.locator('.cm-line', { hasText: 'ring A x n' }).click()
  await page.getByRole('region', { name: 'This line' }).getByText('String 36 beads').waitFor()
})

test('a form left unfilled says so beside its fields', async () => {
  await page.goto(`${here.shop.base}/kits/plan?pattern=${await here.shop.idOf('pattern', 'Windlass pendant')}`)
  await page.getByRole('spinbutton', { name: 'Kits' }).fill('3')
  await page.getByText(/the shelf allows/).waitFor()
  await page.getByRole('button', { name: 'Save the plan' }).click()
  await page.getByText('Name the batch.').waitFor()
  await choose(page, 'Size', 'petite')
  await page.getByLabel('Name').fill('Named after all')
  await page.getByRole('button', { name: 'Save the plan' }).click()
  await page.getByRole('heading', { name: 'Named after all' }).waitFor()
})

test('what a link leads to is fetched while the mouse rests on it, or the focus', async () => {
  const page = await here.enter('isaura', '/desk')
  const places = page.getByRole('navigation', { name: 'Places' })
  const batches = page.waitForRequest(/\/api\/batches$/)
  const code = page.waitForRequest(/batches-page/)
  await places.getByRole('link', { name: 'Kits' }).hover()
  await Promise.all([batches, code])
  const bench = page.waitForRequest(/\/api\/bench$/)
  await places.getByRole('link', { name: 'Bench' }).focus()
  await bench
  expect(new URL(page.url()).pathname).toBe('/desk')
})
