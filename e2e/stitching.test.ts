/** Stitched by hand: a bezel, a right-angle band and a flower by pointing alone, and one by the keyboard alone. */
import type { Locator, Page } from 'playwright-core'
import { reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
beforeAll(async () => {
  here = await visit()
  page = await here.enter('bram')
})
afterAll(() => here.close())

/** The lines of the part, as the ledger shows them. */
const worked = async () => {
  const all = await page.getByLabel('The pattern in notation').locator('.cm-line').allInnerTexts()
  const lines = all.map((line) => line.trim())
  return lines.slice(lines.findIndex((line) => line.startsWith('part ')) + 1).filter(Boolean)
}
const panel = (): Locator => page.getByRole('region', { name: 'Stitching' })
const proposals = () => panel().getByRole('list', { name: 'Proposals' }).getByRole('button')
const plate = () => page.getByRole('application')
const keys = async (...all: string[]) => {
  for (const key of all) await page.keyboard.press(key)
}

async function begin(what: string): Promise<void> {
  await page.goto(`${here.shop.base}/patterns`)
  await page.getByRole('button', { name: 'Begin a pattern' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('radio', { name: what }).check()
  await dialog.getByRole('button', { name: 'Begin', exact: true }).click()
  await plate().locator('canvas').waitFor()
  await page.getByText('Thread, measured').waitFor()
}

async function take(line: string): Promise<void> {
  const before = (await worked()).join('\n')
  await proposals().getByText(line, { exact: true }).first().click()
  await reads(async () => (await worked()).join('\n') === before, false)
}

/** Picks up, one click a bead, and waits until the line says so. */
async function pick(letter: string, line: string): Promise<void> {
  await panel().getByRole('button', { name: letter, exact: true }).click()
  await reads(async () => (await worked()).at(-1), line)
}

/** Where a bead is seen, so many steps back along the thread: found by the ring that the arrows move. */
async function seenBack(steps: number): Promise<readonly [number, number]> {
  await plate().focus()
  for (let i = 0; i < steps; i++) await page.keyboard.press('ArrowLeft')
  const box = await plate().locator('circle').boundingBox()
  await page.keyboard.press('Escape')
  if (!box) throw new Error('No bead is picked out.')
  return [box.x + box.width / 2, box.y + box.height / 2]
}

test('a bezel: stitched by pointing, painted, all of it undone and done again', async () => {
  await begin('round a stone')
  const ring = ['let n = fit(S, A)', 'ring A x n as wall']
  await reads(worked, ring)

  await pick('A', 'pick A')
  await page.mouse.click(...(await seenBack(36)))
  await reads(worked, [...ring, 'pick A >wall[2]'])
  await take('round A')
  await pick('C', 'pick C')
  await take('round C')
  await take('round C')
  await take('place S')
  const bezel = [...ring, 'round A', 'round C', 'round C', 'place S']
  await reads(worked, bezel)

  await page.getByRole('radiogroup', { name: 'What to do with the piece' }).getByText('Paint').click()
  const painting = page.getByRole('region', { name: 'Painting' })
  await painting.getByRole('button', { name: 'B', exact: true }).click()
  await painting.getByRole('combobox', { name: 'Brush' }).click()
  await page.locator('.ant-select-dropdown').getByTitle('Every so many in its round').click()
  await painting.getByRole('spinbutton', { name: 'Every so many beads' }).fill('3')
  await painting.getByRole('button', { name: 'A, row 3' }).first().click()
  await painting.getByText('6 painted B.').waitFor()
  const painted = await worked()
  expect(painted[2]).toMatch(/^round (A(?: x 2)?, )?B, A(?: x 2)?(, A)?$/)

  await page.getByLabel('The pattern in notation').click()
  const steps = [painted]
  for (;;) {
    await keys('Control+z')
    const now = await worked()
    if (now.length === 2) break
    if (now.join() !== steps.at(-1)?.join()) steps.push(now)
  }
  expect(steps).toEqual(expect.arrayContaining([bezel, bezel.slice(0, -1), [...ring, 'pick A >wall[2]']]))
  for (let i = 0; i < 20; i++) await keys('Control+y')
  await reads(worked, painted)
})

test('a right-angle band, by pointing: units, and a loop closed through the bead that the needle left', async () => {
  await begin('a chain')
  await take('weave 1 unit of 3A')
  await take('weave 1 unit of 3A')
  for (const [i, letter] of ['A', 'A', 'A'].entries()) await pick(letter, i === 0 ? 'pick A' : `pick ${i + 1}A`)
  await take('loop 3A')
  await reads(worked, [...Array<string>(3).fill('weave 1 unit of 3A'), 'loop 3A'])
})

test('a flower, by pointing: an arc into the next bead of the heart is an arc into every bead', async () => {
  await begin('a flower')
  for (const [i, letter] of ['C', 'C', 'C'].entries()) await pick(letter, i === 0 ? 'pick C' : `pick ${i + 1}C`)
  await page.mouse.click(...(await seenBack(9)))
  await reads(worked, ['ring 6A as heart', 'pick 3C >heart.first'])
  await take('round 3C into every bead')
  await reads(worked, ['ring 6A as heart', 'round 3C into every bead'])
})

test('the same flower by the keyboard alone, with a pass taken back and brought back', async () => {
  await begin('a flower')
  await plate().focus()
  await keys('3', 'c')
  await reads(worked, ['ring 6A as heart', 'pick 3C'])
  await keys('Backspace')
  await reads(worked, ['ring 6A as heart', 'pick 2C'])
  await keys('Control+z')
  await reads(worked, ['ring 6A as heart', 'pick 3C'])
  await panel().getByText('3 C in this line').waitFor()
  await keys(...Array<string>(9).fill('ArrowLeft'), ' ')
  await reads(worked, ['ring 6A as heart', 'pick 3C >heart.first'])
  const wanted = proposals().filter({ hasText: 'round 3C into every bead' }).first()
  await wanted.waitFor()
  while ((await wanted.getAttribute('aria-current')) !== 'true') await keys('ArrowDown')
  await keys('Tab')
  await reads(worked, ['ring 6A as heart', 'round 3C into every bead'])
  // What is not finished is ended as it is, and said in as few words.
  await keys('b', 'Enter')
  await reads(worked, ['ring 6A as heart', 'round 3C into every bead', 'pick B'])
  await keys('Escape')
  await page.getByRole('region', { name: 'Tray' }).waitFor()
})

test('a bead that lies far off is gone to along the thread, or across when that is what is wanted', async () => {
  await begin('round a stone')
  const far = await seenBack(18)
  await page.mouse.click(...far)
  const asked = panel().getByRole('alert')
  await asked.getByText(/Along the thread it is \d+ beads/).waitFor()
  await asked.getByRole('button', { name: 'Weave there' }).click()
  await reads(async () => (await worked()).length, 3)
  await plate().focus()
  await keys('Control+z')
  await reads(async () => (await worked()).length, 2)
})

test('lines are moved, repeated and taken out as a whole, and what falls with them is told', async () => {
  await page.goto(`${here.shop.base}/patterns/1`)
  const menu = async (item: string) => {
    await page.getByRole('button', { name: 'Lines' }).click()
    await page.getByRole('menuitem', { name: item }).click()
  }
  await page.locator('.cm-line', { hasText: 'ring (3A B)' }).first().click()
  await menu('Take out')
  await page.getByText(/Taken out: \d+ beads fewer\. Line \d+ no longer works/).waitFor()
  await page.getByLabel('The pattern in notation').click()
  await keys('Control+z')
  await page.locator('.cm-line', { hasText: 'ring (3A B)' }).waitFor()
  await page.locator('.cm-line', { hasText: 'reinforce 2' }).click()
  await menu('Move up')
  await reads(async () => (await worked()).slice(-3), ['reinforce 2', 'loop 9C as bail', 'finish'])
  await keys('Control+z')
})
