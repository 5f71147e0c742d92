import type { Page } from 'playwright-core'
import { beginExample, reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
/** Addresses of the workers that the page has begun. */
const workers: string[] = []
beforeAll(async () => {
  here = await visit()
  page = await here.enter('bram')
  page.on('worker', (worker) => workers.push(worker.url()))
})
afterAll(() => here.close())

const drawn = () => page.getByRole('img', { name: /, drawn$/ }).count()

test('the page of patterns shows every drawing as the shop keeps it, and computes no form', async () => {
  await page.goto(`${here.shop.base}/patterns`)
  const cards = page.locator('.pattern-card')
  await cards.first().waitFor()
  const all = await cards.count()
  await reads(drawn, all)
  await page.reload()
  await reads(drawn, all)
  expect(workers).toEqual([])
})

test('a draft that was changed is drawn again in the background, and the drawing before stands until then', async () => {
  await page.goto(`${here.shop.base}/patterns`)
  await beginExample(page)
  await page.getByRole('region', { name: 'Ledger' }).waitFor()
  await page.goto(`${here.shop.base}/patterns`)
  await page.getByRole('img', { name: 'New pattern, drawn' }).waitFor()
})
