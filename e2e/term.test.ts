import type { Packing } from '@tessellum/contract/packing'
import type { Page } from 'playwright-core'
import { beginExample, choose, openList, reads, rewrite, type Visit, visit } from './browser'

let here: Visit
beforeAll(async () => {
  here = await visit()
})
afterAll(() => here.close())

/** Chooses a bead by a few letters, in a form of colours. */
async function give(page: Page, label: string, typed: string): Promise<void> {
  const box = page.getByRole('dialog').getByRole('combobox', { name: label, exact: true })
  await box.click()
  await page.keyboard.type(typed)
  await page.keyboard.press('Enter')
}

describe('from an empty text to a taught class', () => {
  let page: Page
  let isaura: Awaited<ReturnType<Visit['shop']['as']>>
  let id: number
  let classId: number
  let batchId: number

  test('a pattern is written', async () => {
    page = await here.enter('isaura', '/patterns')
    isaura = await here.shop.as('isaura')
    await beginExample(page)
    await page.getByRole('heading', { name: 'New pattern' }).waitFor()
    await rewrite(page, 'pattern New pattern', 'pattern Moorhen charm')
    await page.getByRole('heading', { name: 'Moorhen charm' }).waitFor()
    await page
      .getByRole('status')
      .getByText(/Draft saved/)
      .waitFor()
    id = Number(/patterns\/(\d+)/.exec(page.url())?.[1])
  })

  test('it is coloured from the shelf', async () => {
    await page.getByRole('link', { name: 'Colours', exact: true }).click()
    await page.getByRole('button', { name: 'New colourway' }).click()
    const form = page.getByRole('dialog')
    await form.getByLabel('Name').fill('Moorhen')
    for (const label of await form
      .getByRole('combobox')
      .evaluateAll((all) => all.map((each) => each.getAttribute('aria-label') ?? ''))) {
      if (label.startsWith('Instead')) continue
      await give(
        page,
        label,
        label === 'Thread'
          ? 'smoke'
          : label.startsWith('S')
            ? 'Deep weir WS14'
            : label.startsWith('C')
              ? 'Tarnished brass BF'
              : 'Night lock BC',
      )
    }
    await form.getByRole('button', { name: 'Save colourway' }).click()
    await page.getByText('Moorhen is saved.').waitFor()
  })

  test('it is published, once it has been looked over', async () => {
    await page.getByRole('link', { name: 'Written', exact: true }).click()
    await page.getByRole('button', { name: 'Check and publish' }).click()
    await page.getByRole('button', { name: 'Publish version 1' }).click()
    await page.getByText('Version 1 is published.').waitFor()
  })

  test('it is offered as a class, and two seats are taken', async () => {
    await page.goto(`${here.shop.base}/diary/classes/new`)
    await page.getByLabel('Class', { exact: true }).fill('Moorhen morning')
    await page.getByLabel('Where').fill('the long table')
    await choose(page, 'Who teaches', 'Corin Vetch')
    await page.getByLabel('Seats').fill('2')
    await choose(page, 'Pattern', 'Moorhen charm')
    await page.getByRole('button', { name: 'Save the class' }).click()
    await page.getByRole('heading', { name: 'Moorhen morning' }).waitFor()
    classId = Number(/classes\/(\d+)/.exec(page.url())?.[1])
    await page.getByLabel('Seat 1', { exact: true }).fill('Wren Alder')
    await page.getByLabel('Seat 1', { exact: true }).press('Enter')
    await page.getByRole('button', { name: 'Free seat 1' }).waitFor()
    await page.getByLabel('Seat 2', { exact: true }).fill('Teal Osier')
    await page.getByLabel('Seat 2', { exact: true }).press('Enter')
    await page.getByText('2 of 2 taken', { exact: false }).waitFor()
  })

  test('its kits are planned, reserved, packed and closed', async () => {
    await page.getByRole('button', { name: 'Plan 3 kits' }).click()
    await page.getByRole('link', { name: 'Its batch' }).click()
    await page.getByRole('button', { name: 'Reserve 3 kits' }).click()
    await page.getByText('The shelf holds everything for these kits.', { exact: false }).waitFor()
    batchId = Number(/kits\/(\d+)/.exec(page.url())?.[1])
    const { body } = await isaura.ask<Packing>('GET', `/batches/${batchId}/packing`)
    for (const { itemId, bags } of body.tasks)
      for (const { lineId, kit, target } of bags)
        await isaura.ask('PUT', `/batches/${batchId}/bags`, { lineId, kit, itemId, quantity: target })
    await page.getByRole('link', { name: 'Look at the bags' }).click()
    await page.getByRole('button', { name: 'Close the batch' }).click()
    await page.getByText('Moorhen morning is closed.').waitFor()
  })

  test("it is walked through on the projector; the teacher's own machine opens where the class stands", async () => {
    await page.goto(`${here.shop.base}/patterns/${id}/walk?class=${classId}`)
    await page.getByText(/step 1 of/).waitFor()
    await page.keyboard.press('PageDown')
    await page.keyboard.press('PageDown')
    await page.getByText(/step 3 of/).waitFor()
    const place = () => isaura.ask('GET', `/classes/${classId}`)
    await reads(async () => (await place()).body.walkStep, 2)
    const tablet = await here.enter('corin')
    await tablet.goto(`${here.shop.base}/patterns/${id}/walk?class=${classId}`)
    await tablet.getByText(/step 3 of/).waitFor()
  })

  test('it is taught, and the spare kit comes back into its tubes', async () => {
    await page.goto(`${here.shop.base}/diary/classes/${classId}/sheet`)
    await page.getByRole('row', { name: /Wren Alder/ }).waitFor()
    await page.goto(`${here.shop.base}/diary/classes/${classId}`)
    await page.getByRole('button', { name: 'Taught' }).click()
    await page.getByText('Each seat has its kit from the shelf then', { exact: false }).waitFor()
    await page.getByRole('button', { name: 'Mark as taught' }).click()
    await page.getByText('Taught: each seat has its kit.').waitFor()
    await page.goto(`${here.shop.base}/kits/${batchId}`)
    await page.getByRole('button', { name: /^Something came back of kit 3/ }).click()
    await page.getByRole('button', { name: 'The whole kit, unopened' }).click()
    await page.getByText('came back whole').waitFor()
    const { items } = (await isaura.ask('GET', '/shelf?show=kits&find=moorhen')).body
    expect(items.map(({ onHand }: { onHand: number }) => onHand)).toEqual([0])
  })
})

test('an order is sized to its wrist, taken, planned and called off', async () => {
  const page = await here.enter('bram')
  await page.keyboard.press('Alt+5')
  await page.getByRole('link', { name: 'Orders' }).click()
  await page.getByRole('button', { name: 'Take an order' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('For', { exact: true }).fill('Avocet')
  await choose(page, 'Pattern', 'Tiller bracelet')
  await choose(page, 'Worn on', 'wrist')
  await dialog.getByLabel('Measure, cm').fill('1.6')
  await dialog.getByRole('button', { name: 'Size it' }).click()
  await dialog.getByText('smaller than any', { exact: false }).waitFor()
  await dialog.getByLabel('Measure, cm').fill('16')
  await dialog.getByRole('button', { name: 'Size it' }).click()
  await dialog.getByText(/made to measure: .* long/).waitFor()
  await dialog.getByRole('button', { name: 'Take the order' }).click()
  await page.getByText('Order taken.').waitFor()
  await page.getByRole('button', { name: 'Plan the kit for Avocet' }).click()
  await page.getByRole('button', { name: 'Plan the kit for Avocet' }).waitFor({ state: 'detached' })
  await page.getByRole('button', { name: 'Call off the order for Avocet' }).click()
  await page.getByRole('button', { name: 'Call the order off' }).click()
  await page.getByText('called off').first().waitFor()
})

test('a customer on record brings their measure to an order, and what they do not bear', async () => {
  const page = await here.enter('bram')
  await page.goto(`${here.shop.base}/diary/orders`)
  await page.getByRole('button', { name: 'Take an order' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('For', { exact: true }).fill('Col')
  await openList(page).getByTitle('Col Reedling').click()
  await dialog.getByText('Allergies: nickel.').waitFor()
  await reads(() => dialog.getByLabel('Measure, cm').inputValue(), '21.1')
  await choose(page, 'How it sits', 'loose: 25 mm more than the wrist')
  await choose(page, 'Pattern', 'Tiller bracelet')
  await dialog.getByRole('button', { name: 'Size it' }).click()
  await dialog
    .getByText(/25\.[6-9] cm wanted/)
    .first()
    .waitFor()
})
