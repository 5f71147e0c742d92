/** A shop of one's own: begun from nothing in the browser, with its own name and ways, and its patterns kept in order. */
import type { Page } from 'playwright-core'
import { emptyShop } from '../packages/server/test/shop'
import { beginShop, choose, reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
beforeAll(async () => {
  here = await visit(undefined, { BEGIN_TOKEN: 'as-printed' }, await emptyShop())
  page = await here.stranger(here.shop.base)
})
afterAll(() => here.close())

test('whoever has the address begins it, and is its owner', async () => {
  await page.getByText('Nobody has begun this shop yet.', { exact: false }).waitFor()
  await beginShop(page, here.shop.base, 'EUR')
  await page.getByRole('region', { name: 'Getting started' }).getByText('Bring in your stock').waitFor()
})

test('what it settles is told where it is changed, and comes into what is made', async () => {
  await page.getByRole('link', { name: 'Settings', exact: true }).click()
  await page.getByLabel('Beneath every pattern').fill('Not to be taught without leave.')
  await page.getByRole('button', { name: 'Save' }).click()
  await page.getByText('The settings are saved.').waitFor()
  await page.getByRole('navigation', { name: 'Settings' }).getByRole('link', { name: 'Costs' }).click()
  await page.getByText('€').first().waitFor()
  // What is typed and not saved is still there after another page.
  await page.getByLabel('Margin').fill('50')
  const parts = page.getByRole('navigation', { name: 'Settings' })
  await parts.getByRole('link', { name: 'Thread' }).click()
  await page.getByText('Usually 15 cm.', { exact: false }).first().waitFor()
  await parts.getByRole('link', { name: 'Costs' }).click()
  await page.getByText('What you had typed is still here.', { exact: false }).waitFor()
  expect(await page.getByLabel('Margin').inputValue()).toBe('50')
  await page.goto(`${here.shop.base}/patterns`)
  await page.getByRole('article', { name: 'Windlass pendant' }).getByRole('link').click()
  await page.getByRole('navigation', { name: 'Pages of this pattern' }).getByRole('link', { name: 'Written' }).click()
  await page.getByText('Not to be taught without leave.').waitFor()
})

test('a pattern is copied, renamed, described, found, put away and thrown away', async () => {
  const cards = () => page.getByRole('article').evaluateAll((all) => all.map((each) => each.getAttribute('aria-label')))
  const menu = async (title: string, item: string) => {
    await page.getByRole('button', { name: `What to do with ${title}` }).click()
    await page.getByRole('menuitem', { name: item }).click()
  }
  await page.goto(`${here.shop.base}/patterns`)
  await menu('Windlass pendant', 'Copy')
  await page.getByRole('heading', { level: 1, name: 'Copy of Windlass pendant' }).waitFor()
  await page.goto(`${here.shop.base}/patterns`)
  await menu('Copy of Windlass pendant', 'Rename')
  await page.getByLabel('Its name').fill('Harbour light')
  await page.getByRole('dialog').getByRole('button', { name: 'Rename' }).click()
  await menu('Harbour light', 'Tags and season')
  await page.getByRole('combobox', { name: 'Tags' }).fill('gift')
  await page.keyboard.press('Enter')
  await choose(page, 'Season', 'winter')
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click()
  await page.getByRole('article', { name: 'Harbour light' }).getByText('winter, gift').waitFor()
  await page.getByLabel('Find a pattern').fill('gift')
  await reads(cards, ['Harbour light'])
  await page.getByLabel('Find a pattern').fill('')
  await menu('Sluice rope', 'Put away')
  await reads(cards, ['Harbour light', 'Windlass pendant'])
  await menu('Harbour light', 'Throw away')
  await page.getByRole('button', { name: 'Throw it away' }).click()
  await reads(cards, ['Windlass pendant'])
  await page.getByText('thrown away', { exact: true }).click()
  await reads(cards, ['Harbour light'])
  await menu('Harbour light', 'Bring back')
  await reads(cards, [])
  await page.getByText('put away', { exact: true }).click()
  await menu('Sluice rope', 'Take out again')
  await page.getByText('in the shop', { exact: true }).click()
  await reads(cards, ['Harbour light', 'Sluice rope', 'Windlass pendant'])
})

test('help is where it is needed: of the place, and the notation beside the text, with examples to put into it', async () => {
  await page.getByRole('link', { name: 'Help' }).click()
  await page.getByRole('heading', { level: 1, name: 'Patterns' }).waitFor()
  await page.getByRole('article').getByRole('link', { name: 'notation' }).click()
  await page.getByRole('heading', { level: 1, name: 'The notation' }).waitFor()
  await page.goto(`${here.shop.base}/patterns`)
  await page.getByRole('article', { name: 'Sluice rope' }).getByRole('link').click()
  const lines = () => page.getByLabel('The pattern in notation').locator('.cm-line').count()
  await page.getByText('Thread, measured').waitFor()
  const before = await lines()
  await page.getByRole('button', { name: 'Notation' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Insert' }).first().click()
  await reads(async () => (await lines()) > before, true)
})
