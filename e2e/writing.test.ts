import { readFileSync } from 'node:fs'
import type { Page } from 'playwright-core'
import { choose, rewrite, type Visit, visit } from './browser'

let here: Visit
let page: Page
let windlass: string
let heron: string
beforeAll(async () => {
  here = await visit()
  windlass = await here.pageOf('pattern', 'Windlass pendant')
  heron = await here.pageOf('pattern', 'Heron earrings')
  page = await here.enter('bram', '/patterns')
})
afterAll(() => here.close())

const written = (query = '') => page.goto(`${windlass}/written${query}`)

test('the same pattern in another language and on other sheets, each with its own numbers', async () => {
  await written('?version=1&size=petite')
  await page.getByText('String 36 beads: pick up 3 A and 1 B, 9 times.', { exact: false }).waitFor()
  await written('?version=1&size=petite&language=de&sheet=class&seat=Jorinde&chosen=petite,+Lantern')
  const sheet = page.getByRole('article')
  await sheet.getByText('36 Perlen auffädeln: 3 A und 1 B aufnehmen, 9-mal.', { exact: false }).waitFor()
  await sheet.getByText('Platz: Jorinde · petite, Lantern').waitFor()
  await written('?version=1&size=petite&sheet=card')
  await sheet.getByRole('row', { name: '1 ring (3A B) x n/4 27 A, 9 B 27 A, 9 B' }).waitFor()
})

test("a designer's own words stay with their step when lines come before it, and are kept aside when it goes", async () => {
  await written('?version=draft')
  await page.getByRole('button', { name: 'Own words' }).click()
  await page.getByRole('button', { name: 'Say step 7 in your own words' }).click()
  await page.getByLabel('Also, step 7').fill('Face up, <b>always</b>.')
  await page.getByLabel('Also, step 7').blur()
  const sheet = page.getByRole('article')
  const step = (text: string) => sheet.getByRole('listitem').filter({ hasText: text })
  await step('Lay the stone S in').getByText('Face up, <b>always</b>.').waitFor()

  await page.goto(windlass)
  await rewrite(page, 'other edge', '  note "Rest your eyes."\n  other edge')
  await page.getByText('Saved').first().waitFor()
  await written('?version=draft')
  await step('Lay the stone S in').getByText('Face up, <b>always</b>.').waitFor()
  await step('Lay the stone S in').getByText('8', { exact: true }).waitFor()

  await page.goto(windlass)
  await rewrite(page, 'place S', '  note "No stone."')
  await page.getByText('Saved').first().waitFor()
  await written('?version=draft')
  await page.getByText('Some of your own words no longer match a step.').waitFor()
  await page.getByRole('button', { name: 'Look at them' }).click()
  const aside = page.getByRole('region', { name: 'Words kept aside from "place S"' })
  await aside.getByText('Face up, <b>always</b>.').waitFor()
  // By keyboard: the list follows its field while the drawer still comes in, and a click may fall beside what it was meant for.
  await aside.getByRole('combobox').press('ArrowDown')
  await page.getByTitle('1: ring (3A B) x n/4').waitFor()
  await page.keyboard.press('Enter')
  await aside.waitFor({ state: 'detached' })
  await step('String 44 beads').getByText('Face up, <b>always</b>.').waitFor()
})

test('before it is given out it is looked over; a version is published, and an erratum finds who carries it', async () => {
  await page.goto(`${heron}/written`)
  await page.getByRole('button', { name: 'Check and publish' }).click()
  const lacks = page.getByRole('list', { name: 'Wrong or missing' })
  await lacks.getByText('No sample has been stitched', { exact: false }).waitFor()
  await page.getByText('Compare a materials list of your own').click()
  await page.getByLabel('Your materials list').fill('2 cylinder 11/0 A')
  await page.getByText(/line 1: A is short: 2 listed/).waitFor()
  await page.getByRole('button', { name: 'Publish version 2' }).click()
  await page.getByText('Version 2 is published.').waitFor()
  await page.getByRole('button', { name: 'Check and publish' }).click()
  await choose(page, 'Corrects', 'Version 2: Edition 2')
  await page.getByText('No batch carries version 2.').waitFor()
  await page.getByRole('button', { name: 'Publish version 3' }).click()
  await page.getByText('Say what was wrong.').waitFor()
  await page.getByLabel('The erratum: what was wrong').fill('The wire was left out.')
  await page.getByRole('button', { name: 'Publish version 3' }).click()
  await page.getByText('Version 3 is published.').waitFor()
  await page.goto(`${heron}/written?version=3`)
  await page.getByText('This corrects version 2: The wire was left out.').waitFor()
})

test('a pattern goes out as a file and is dropped in again; a file that is none is refused, and nothing is kept', async () => {
  await written('?version=draft')
  await page.getByRole('button', { name: 'Other files' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Pattern, JSON' }).click(),
  ])
  const file = readFileSync(await download.path(), 'utf8')
  await page.goto(`${here.shop.base}/patterns`)
  const open = (name: string, text: string) =>
    page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
  const refused = async (name: string, text: string, why: string) => {
    await open(name, text)
    await page.getByText(why, { exact: false }).waitFor()
    await page.keyboard.press('Escape')
    await page.getByText(why, { exact: false }).waitFor({ state: 'detached' })
  }
  await refused(
    'later.json',
    file.replace('"formatVersion": 1', '"formatVersion": 9'),
    'is of version 9 of the pattern format',
  )
  await refused('by-hand.json', file.replace('"role": "A"', '"role": 7'), 'has an error at colourways.0.choices.0.role')
  await refused('cut.json', file.slice(0, 300), 'breaks off or has a slip')
  await open('by-hand.tess', 'pattern Dropped in\nbead A cylinder 11/0\npart p\nrnig 12A\nring 6A\n')
  const dialog = page.getByRole('dialog', { name: 'Dropped in' })
  await dialog.getByText('Line 4, column 1:', { exact: false }).waitFor()
  await dialog.getByRole('button', { name: 'Leave it' }).click()
  await open('windlass.json', file)
  await page
    .getByText('Colourways: Ember and rust, Lantern.', { exact: false })
    .or(page.getByText('Colourways: Lantern, Ember and rust.', { exact: false }))
    .waitFor()
  await page.getByRole('button', { name: 'Save as a new pattern' }).click()
  await page.getByRole('heading', { name: 'Windlass pendant', level: 1 }).waitFor()
  await page.getByText('Lantern', { exact: true }).first().waitFor()
  // Its pictures have come with it, with what stands beneath them.
  const { pictures }: { pictures: { caption: string }[] } = JSON.parse(file)
  expect(pictures.length).toBeGreaterThan(0)
  await page.getByRole('navigation', { name: 'Pages of this pattern' }).getByRole('link', { name: 'Pictures' }).click()
  for (const { caption } of pictures) await page.getByRole('img', { name: caption, exact: true }).waitFor()
})
