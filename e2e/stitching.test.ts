/** Stitched by hand: a bezel, a right-angle band and a flower by pointing alone, and one by the keyboard alone. */
import type { Locator, Page } from 'playwright-core'
import { reads, type Visit, visit } from './browser'

let here: Visit
beforeAll(async () => {
  here = await visit()
})
afterAll(() => here.close())

const ledger = (page: Page) => async () =>
  (await page.getByLabel('The pattern in notation').locator('.cm-line').allInnerTexts()).map((line) => line.trim())

/** The lines below the head of the part. */
const worked = (page: Page) => async () => {
  const lines = await ledger(page)()
  return lines.slice(lines.findIndex((line) => line.startsWith('part ')) + 1).filter(Boolean)
}

const panel = (page: Page): Locator => page.getByRole('region', { name: 'Stitching' })
const proposals = (page: Page) => panel(page).getByRole('list', { name: 'Proposals' }).getByRole('button')
const take = (page: Page, line: string) => proposals(page).filter({ hasText: line }).first().click()
const pick = (page: Page, letter: string) => panel(page).getByRole('button', { name: letter, exact: true }).click()

async function begin(page: Page, what: string, fill: Readonly<Record<string, string>> = {}): Promise<void> {
  await page.goto(`${here.shop.base}/patterns`)
  await page.getByRole('button', { name: 'Begin a pattern' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('radio', { name: what }).check()
  for (const [label, value] of Object.entries(fill)) await dialog.getByLabel(label, { exact: true }).fill(value)
  await dialog.getByRole('button', { name: 'Begin', exact: true }).click()
  await panel(page).waitFor()
}

test('a bezel round a stone, by pointing alone: proposals taken, painted, undone and done again', async () => {
  const page = await here.enter('bram')
  await begin(page, 'round a stone')
  await reads(worked(page), ['let n = fit(S, A)', 'ring A x n as wall'])

  // One bead is enough: it is probably a round of peyote.
  await pick(page, 'A')
  await take(page, 'round A')
  await reads(worked(page), ['let n = fit(S, A)', 'ring A x n as wall', 'round A'])
  await pick(page, 'C')
  await take(page, 'round C')
  await take(page, 'round C')
  await take(page, 'place S')
  const bezel = ['let n = fit(S, A)', 'ring A x n as wall', 'round A', 'round C', 'round C', 'place S']
  await reads(worked(page), bezel)

  await page.getByRole('radiogroup', { name: 'What to do with the piece' }).getByText('Paint').click()
  const painting = page.getByRole('region', { name: 'Painting' })
  await painting.getByRole('button', { name: 'B', exact: true }).click()
  await painting
    .getByRole('button', { name: /^A, row 3/ })
    .first()
    .click()
  await painting.getByText('1 painted B.').waitFor()
  const painted = await worked(page)()
  expect(painted[2]).toMatch(/^round (A x \d+, )?B(, A x \d+)?$/)

  await page.getByLabel('The pattern in notation').click()
  await page.keyboard.press('Control+z')
  await reads(worked(page), bezel)
  await page.keyboard.press('Control+z')
  await reads(worked(page), bezel.slice(0, -1))
  await page.keyboard.press('Control+y')
  await page.keyboard.press('Control+y')
  await reads(worked(page), painted)
})

test('a right-angle band, by pointing alone', async () => {
  const page = await here.enter('bram')
  await begin(page, 'a chain')
  await reads(worked(page), ['weave 1 unit of 3A'])
  // Three beads, and the loop is closed through the bead that the needle came from.
  for (const letter of ['A', 'A', 'A']) await pick(page, letter)
  await take(page, 'loop 3A')
  await reads(worked(page), ['weave 1 unit of 3A', 'loop 3A'])
})

test('a flower by the keyboard alone', async () => {
  const page = await here.enter('bram')
  await begin(page, 'a flower')
  const plate = page.getByRole('application')
  await plate.focus()
  const keys = async (...all: string[]) => {
    for (const key of all) await page.keyboard.press(key)
  }
  // Five of C, which are offered as an arc into every bead.
  await keys('3', 'c')
  await reads(worked(page), ['ring 6A as heart', 'pick 3C'])
  await proposals(page).first().waitFor()
  await keys('Backspace')
  await reads(worked(page), ['ring 6A as heart', 'pick 2C'])
  await keys('Control+z')
  await reads(worked(page), ['ring 6A as heart', 'pick 3C'])
  // On along the thread to the next bead of the heart, and through it.
  await keys('ArrowRight')
  await keys('ArrowRight')
  await keys(' ')
  await reads(async () => (await worked(page)()).length, 2)
  await take(page, 'round 3C')
  await reads(async () => (await worked(page)()).at(-1)?.startsWith('round 3C'), true)
  await keys('Escape')
})
