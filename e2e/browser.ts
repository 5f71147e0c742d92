/** A real browser in front of a shop of the test's own. Things are found as a person finds them: by role and label. */
import { type Browser, chromium, type Page } from 'playwright-core'
import { type NamedRecord, openShop, password, type Shop } from '../packages/server/test/shop'

/** Given by the tests' environment. */
declare const openPages: Set<Page>

const switches = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

const placeOf: Readonly<Record<NamedRecord, string>> = {
  pattern: '/patterns',
  batch: '/kits',
  class: '/diary/classes',
  item: '/stock',
  customer: '/customers',
  supplier: '/suppliers',
}

export interface Visit {
  readonly shop: Shop
  /** A new person at a screen of their own, on the bench or at another place. */
  enter(name: string, at?: string): Promise<Page>
  /** The page of a record of the demo shop, by what it is called. */
  pageOf(record: NamedRecord, name: string): Promise<string>
  /** Somebody who is not signed in, at an address in full. */
  stranger(address: string): Promise<Page>
  close(): Promise<void>
}

export async function visit(
  through?: (port: number) => Promise<number>,
  env?: Readonly<Record<string, string>>,
  there?: string,
): Promise<Visit> {
  const shop = await openShop(through, env, there)
  const browser: Browser = await chromium.launch({ executablePath: process.env.TEST_CHROMIUM ?? '', args: switches })
  const stranger = async (address: string) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true })
    await context.addInitScript(waitForMotion)
    const page = await context.newPage()
    openPages.add(page)
    page.setDefaultTimeout(240_000)
    page.on('pageerror', (error) => {
      throw error
    })
    await page.goto(address)
    return page
  }
  return {
    shop,
    stranger,
    pageOf: async (record, name) => `${shop.base}${placeOf[record]}/${await shop.idOf(record, name)}`,
    async enter(name, at) {
      const page = await stranger(shop.base)
      await page.getByLabel('Sign-in name').fill(name)
      await page.getByLabel('Password').fill(password)
      await page.getByRole('button', { name: 'Sign in' }).click()
      await page.getByRole('heading', { name: 'Bench', exact: true }).waitFor()
      if (at) {
        await page.goto(shop.base + at)
        await page.getByRole('heading', { level: 1 }).first().waitFor()
      }
      return page
    },
    async close() {
      await browser.close()
      await shop.close()
    },
  }
}

/** A menu that is still opening takes no press: what is pressed may have moved on before it is let go, and nobody would press so soon. */
function waitForMotion() {
  const style = document.createElement('style')
  style.textContent = '[class*="-appear-"], [class*="-enter-"] { pointer-events: none !important; }'
  document.addEventListener('DOMContentLoaded', () => document.head.append(style))
}

/** Waits until something on the page reads as it should; fails with what it read last. */
export async function reads(read: () => Promise<unknown>, expected: unknown): Promise<void> {
  const until = Date.now() + 240_000
  let last: unknown
  while (Date.now() < until) {
    last = await read()
    if (JSON.stringify(last) === JSON.stringify(expected)) return
    await new Promise((done) => setTimeout(done, 60))
  }
  expect(last).toEqual(expected)
}

/** What the tray says of each letter. */
export const tray = (page: Page) => async () => {
  const compartments = page.getByRole('region', { name: 'Tray' }).getByRole('listitem')
  const texts = await compartments.evaluateAll((all) =>
    all.map((each) => [each.querySelector('strong')?.textContent, each.querySelector('b')?.textContent]),
  )
  return Object.fromEntries(texts.filter(([letter]) => letter))
}

/** Writes a line of the ledger anew. */
export async function rewrite(page: Page, line: string, text: string): Promise<void> {
  await page.getByLabel('The pattern in notation').locator('.cm-line', { hasText: line }).first().click()
  await page.keyboard.press('Home')
  await page.keyboard.press('Shift+End')
  await page.keyboard.insertText(text)
}

/**
 * The open list of one of Ant Design's selects, once it is at rest. While it opens, a click is refused, and the
 * browser's driver scrolls the page to try again: the list moves with it, and the click may miss.
 */
export const openList = (page: Page) =>
  page.locator('.ant-select-dropdown:not(.ant-select-dropdown-hidden, [class*="-appear"], [class*="-enter"])')

/** Chooses in one of Ant Design's selects. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  const box = page.getByRole('combobox', { name: label })
  await box.click()
  // A long list is searched, as a person would.
  if (await box.isEditable()) await page.keyboard.type(option)
  await openList(page).getByTitle(option, { exact: true }).click()
}

/** Begins a pattern with the small bezel that is there to be changed in the text. */
export async function beginExample(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Begin a pattern' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('radio', { name: 'an example to change in the text' }).check()
  await dialog.getByRole('button', { name: 'Begin', exact: true }).click()
}

/** An empty shop with its owner, Tamsin Alder, who is signed in then. */
export async function beginShop(page: Page, base: string, currency: string): Promise<void> {
  await page.goto(`${base}/begin#as-printed`)
  await page.getByLabel('The shop is called').fill('The Bead Barge')
  await choose(page, 'Money', currency)
  await page.getByLabel('Your name').fill('Tamsin Alder')
  await page.getByLabel('Sign-in name').fill('tamsin')
  await page.getByLabel('New password').fill('reeds and rushes')
  await page.getByLabel('Repeat the password').fill('reeds and rushes')
  await page.getByRole('button', { name: 'Begin', exact: true }).click()
}
