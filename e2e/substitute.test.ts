import type { Page } from 'playwright-core'
import { type Visit, visit } from './browser'

let here: Visit
let page: Page
let windlass: string
let batch: number
let colourway: number

interface Coded {
  readonly id: number
  readonly code: string
}

/** A class of six in a green of which the shelf has next to nothing. */
beforeAll(async () => {
  here = await visit()
  windlass = await here.pageOf('pattern', 'Windlass pendant')
  const bram = await here.shop.as('bram')
  const { body: items } = await bram.ask('GET', '/items')
  const patternId = await here.shop.idOf('pattern', 'Windlass pendant')
  const { body: lantern } = await bram.ask('GET', `/patterns/${patternId}/colourways`)
  const scarce = (items as Coded[]).find(({ code }) => code === 'BC-164' || code === 'BC164')
  const choices = lantern[0].choices.map((choice: { role: string }) =>
    choice.role === 'A' ? { ...choice, itemId: scarce?.id } : choice,
  )
  colourway = (await bram.ask('POST', `/patterns/${patternId}/colourways`, { name: 'Duckweed', choices })).body.id
  const line = { patternId, version: 1, size: 'petite', colourwayId: colourway, kits: 6 }
  batch = (await bram.ask('POST', '/batches', { name: 'Duckweed class', dueOn: '2027-03-01', lines: [line] })).body.id
  page = await here.enter('bram', '/patterns')
})
afterAll(() => here.close())

test('a class that is short is rescued by a bead of another maker, and every count follows', async () => {
  await page.goto(`${here.shop.base}/kits/${batch}`)
  await page.getByText('short', { exact: true }).waitFor()
  await page.getByRole('link', { name: 'What could stand in for A?' }).click()
  const found = page.getByRole('list', { name: 'Substitutes, best first' })
  // The other maker's are longer: 32 go round for 36, so A 24 + 16 + 16, B 8, C 4 x 16 + 9.
  const other = found.getByRole('listitem').filter({ hasText: 'counts: A 63 -> 56, B 9 -> 8, C 81 -> 73' }).first()
  await other.getByText(/rescues [3-6]/).waitFor()
  await other.getByRole('button', { name: /^For the colourway/ }).click()
  await page.getByText('Duckweed is version 2 now.', { exact: false }).waitFor()

  await page.goto(`${here.shop.base}/kits/${batch}`)
  await page.getByText('this line keeps version 1', { exact: false }).waitFor()
  await page.getByRole('button', { name: 'Plan with version 2' }).click()
  await page.getByText('the shelf has it all').waitFor()
  await page.getByRole('button', { name: 'Reserve 6 kits' }).click()
  await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
  await page.getByText('What goes into each kit').click()
  await page.getByRole('row', { name: /^A .*56 exact/ }).waitFor()
})

test('the written pattern follows', async () => {
  await page.goto(`${windlass}/written?version=1&size=petite&colourway=${colourway}`)
  await page.getByText('In one piece: 56 A, 8 B, 73 C.').waitFor()
})

test('for one batch only: its ways are compared, the kept counts taken, and the colourway stays as it is', async () => {
  await page.goto(`${here.shop.base}/kits/${batch}`)
  await page.getByRole('button', { name: 'Give back' }).click()
  await page.getByText('Given back to the shelf.').waitFor()
  const at = new URLSearchParams({
    colourway: String(colourway),
    size: 'petite',
    instead: 'A',
    kits: '6',
    batch: String(batch),
    line: '1',
  })
  await page.goto(`${windlass}/colours?${at}`)
  const found = page.getByRole('list', { name: 'Substitutes, best first' })
  const shorter = found.getByRole('listitem').filter({ hasText: 'Brackwater Glass' }).first()
  await shorter.getByRole('button', { name: /^Compare ways/ }).click()
  const ways = page.getByRole('table', { name: 'Ways of working it in' })
  // The longer bead's 56 are in place now; the shorter one's counts are those that were written.
  await ways.getByRole('row', { name: /^counts follow.* A 56 -> 63/ }).waitFor()
  await ways
    .getByRole('button', { name: /^For this batch: .*counts follow/ })
    .first()
    .click()
  await page.getByText('(version 3, for this batch only)').waitFor()
  await page.getByText('What goes into each kit').click()
  await page.getByRole('row', { name: /^A .*63 exact/ }).waitFor()
  // Its written pattern is that of its beads, though the colourway itself has the others.
  await page.getByRole('link', { name: 'Windlass pendant' }).click()
  await page.getByText('In one piece: 63 A, 9 B, 81 C.').waitFor()
  await page.goto(`${windlass}/written?version=1&size=petite&colourway=${colourway}`)
  await page.getByText('In one piece: 56 A, 8 B, 73 C.').waitFor()
})

test('other colours are proposed from the shelf and kept; what is no picture is refused', async () => {
  await page.goto(`${windlass}/colours`)
  await page.getByRole('article', { name: 'Lantern' }).getByRole('button', { name: 'Other colours' }).click()
  const drawer = page.getByRole('dialog', { name: 'Other colours for Lantern' })
  await drawer.getByText('A picture').click()
  await drawer
    .locator('input[type=file]')
    .setInputFiles({ name: 'shopping.png', mimeType: 'image/png', buffer: Buffer.from('beads, thread, tea') })
  await drawer.getByText('shopping.png is not a picture. Choose a PNG, JPEG or WebP file.').waitFor()
  // A head that claims 100 megapixels is enough: nothing is decoded.
  const vast = Buffer.from('89504e470d0a1a0a0000000d494844520000271000002710080600000000000000', 'hex')
  await drawer.locator('input[type=file]').setInputFiles({ name: 'quay.png', mimeType: 'image/png', buffer: vast })
  await drawer.getByText('quay.png has 100 megapixels; 40 are the most.', { exact: false }).waitFor()
  await drawer.getByText('The shelf', { exact: true }).click()
  await drawer.getByRole('button', { name: 'Propose' }).click()
  const first = drawer.getByRole('list', { name: 'Proposals, best first' }).getByRole('listitem').first()
  await first.getByLabel('Name of the colourway').fill('Shelf find')
  await first.getByRole('button', { name: 'Keep' }).click()
  await page.getByRole('article', { name: 'Shelf find' }).getByRole('heading', { name: 'Shelf find' }).waitFor()
})

test('a pattern is graded: each size with its counts and what breaks a rule', async () => {
  await page.goto(`${windlass}/sizes`)
  const grading = page.getByRole('region', { name: 'Grading' })
  await grading.getByLabel('Over').fill('14, wide, 18 mm')
  await grading.getByRole('button', { name: 'Grade' }).click()
  await grading.getByText('"wide" is not a number. Write for example: 12, 14, 16 mm.').waitFor()
  await grading.getByLabel('Over').fill('11.5, 14 mm')
  await grading.getByRole('button', { name: 'Grade' }).click()
  await grading.getByRole('row', { name: /^14 mm 63 9 81 .* keeps them/ }).waitFor()
  await grading.getByRole('row', { name: /^11.5 mm .*too tight. 11.2 mm keeps them/ }).waitFor()
})

test('a colourway is judged as other eyes see it', async () => {
  await page.goto(`${windlass}/colours`)
  const lantern = page.getByRole('article', { name: 'Lantern' })
  await lantern.getByText(/A and B stand out from each other: 33\.9 apart/).waitFor()
  await page.getByText('warm light').click()
  await lantern.getByText(/A and B stand out from each other: (?!33\.9)/).waitFor()
})
