/** Stitched by hand: a bezel, a right-angle band and a flower by pointing alone, and one by the keyboard alone. */
import type { Locator, Page } from 'playwright-core'
import { choose, reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
let windlass: string
beforeAll(async () => {
  here = await visit()
  windlass = await here.pageOf('pattern', 'Windlass pendant')
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

/** Opens a text as a pattern of its own, and takes it in hand. */
async function open(
  lines: readonly string[],
  hand: 'Stitch' | 'Paint',
  beads = ['A cylinder 11/0', 'B cylinder 11/0'],
): Promise<void> {
  const text = ['pattern Tried', ...beads.map((bead) => `bead ${bead}`), 'part tried', ...lines].join('\n')
  await page.goto(`${here.shop.base}/patterns`)
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'tried.tess', mimeType: 'text/plain', buffer: Buffer.from(`${text}\n`) })
  await page.getByRole('button', { name: 'Save as a new pattern' }).click()
  await page.getByText('Thread, measured').waitFor()
  await handsTo(hand)
}
const handsTo = (what: 'Stitch' | 'Paint') =>
  page.getByRole('radiogroup', { name: 'What to do with the piece' }).getByText(what).click()

const painting = () => page.getByRole('region', { name: 'Painting' })
async function paint(brush: string, bead: string): Promise<void> {
  await painting().getByRole('button', { name: 'B', exact: true }).click()
  await choose(page, 'Brush', brush)
  await painting().getByRole('button', { name: bead }).first().click()
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
async function seenBack(steps: number, hole: 1 | 2 = 1): Promise<readonly [number, number]> {
  await plate().focus()
  if (hole === 2) await keys(':')
  for (let i = 0; i < steps; i++) await page.keyboard.press('ArrowLeft')
  const box = await plate().locator('circle').boundingBox()
  await keys('Escape', ...(hole === 2 ? [':'] : []))
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

  await handsTo('Paint')
  await choose(page, 'Brush', 'Every so many in its round')
  await painting().getByRole('spinbutton', { name: 'Every so many beads' }).fill('3')
  await paint('Every so many in its round', 'A, row 3')
  await painting().getByText('6 painted B.').waitFor()
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
  await page.goto(windlass)
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
  // The editor draws what is in sight.
  await keys('Control+End')
  await page.locator('.cm-line', { hasText: 'reinforce 2' }).click()
  await menu('Move up')
  await reads(async () => (await worked()).slice(-3), ['reinforce 2', 'loop 9C as bail', 'finish'])
  await keys('Control+z')
})

test('a two-hole bead is passed by the hole that is clicked, and with the keyboard by the one that is meant', async () => {
  const ring = 'ring (T A) x 8 as frame'
  await open([ring], 'Stitch', ['A round 11/0', 'T twin tile 5 x 5 x 1.9 mm'])
  const comesTo = async (line: string) => {
    await reads(worked, [ring, line])
    await plate().focus()
    await keys('Control+z', 'Control+z')
    await reads(worked, [ring])
  }
  for (const hole of [1, 2] as const) {
    const line = `pick A >frame.first${hole === 2 ? ':2' : ''}`
    await pick('A', 'pick A')
    await page.mouse.click(...(await seenBack(17, hole)))
    await comesTo(line)
    await keys('a')
    await reads(worked, [ring, 'pick A'])
    await keys(...(hole === 2 ? [':'] : []), ...Array<string>(17).fill('ArrowLeft'), ' ')
    await comesTo(line)
  }
})

test('a full hole is told before it is passed', async () => {
  await open(['ring 24A as base', 'reinforce 9'], 'Stitch')
  await pick('B', 'pick B')
  await page.mouse.click(...(await seenBack(24)))
  const asked = panel().getByRole('alert')
  await asked.getByText(/A hole of A would have \d+ passes, and takes \d+\./).waitFor()
  await asked.getByRole('button', { name: 'Pass all the same' }).click()
  await reads(async () => (await worked()).at(-1), 'pick B >base[2]')
})

test('one turn of a repeat is written out, its motif is mirrored, a column is painted up the piece', async () => {
  await open(['ring 12A', 'repeat 6', 'round A', 'end'], 'Paint')
  await paint('This bead', 'A, row 5')
  await painting().getByText('1 painted B.').waitFor()
  const around = (round: string) => ['ring 12A', 'repeat 2', 'round A', 'end', round, 'repeat 3', 'round A', 'end']
  await reads(worked, around('round B, A x 5'))
  await page.locator('.cm-line', { hasText: 'round B, A x 5' }).click()
  await page.getByRole('button', { name: 'Lines' }).click()
  await page.getByRole('menuitem', { name: 'Mirror the motif' }).click()
  await reads(worked, around('round A x 5, B'))
  await paint('Straight up the piece', 'B, row 5')
  await painting().getByText('3 painted B.').waitFor()
  await reads(worked, [
    'ring B 11A',
    'round B, A x 5',
    'round A',
    'round A x 5, B',
    'round A',
    'round A x 4, B, A',
    'round A',
  ])
})
