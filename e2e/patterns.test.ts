import type { Page } from 'playwright-core'
import { beginExample, reads, type Visit, visit } from './browser'

let here: Visit
let page: Page
let windlass: string
/** Addresses of the workers that the page has begun. */
const workers: string[] = []
beforeAll(async () => {
  here = await visit()
  windlass = await here.pageOf('pattern', 'Windlass pendant')
  page = await here.enter('bram')
  page.on('worker', (worker) => workers.push(worker.url()))
})
afterAll(() => here.close())

const drawn = () => page.getByRole('img', { name: /, drawn$/ }).count()

test('the page of patterns shows every drawing as the shop keeps it, and computes no form', async () => {
  await page.goto(`${here.shop.base}/patterns`)
  const cards = page.getByRole('article')
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

test('the text of a pattern has room for twenty-eight lines, and its notes stand beside their lines', async () => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(windlass)
  const marks = page.locator('.cm-lint-marker-info')
  await marks.first().waitFor()
  const lines = () =>
    page
      .locator('.cm-scroller')
      .evaluate((scroller) => scroller.clientHeight / Number.parseFloat(getComputedStyle(scroller).lineHeight))
  // With a line in hand whose sentence is long.
  await page.locator('.cm-line', { hasText: 'round C' }).first().click()
  await page.getByRole('region', { name: 'This line' }).getByText('Front round 2: pick up 1 C').waitFor()
  expect(await lines()).toBeGreaterThanOrEqual(28)
  await marks.first().hover()
  await page.getByText('44 A round S (target 59.1 mm)', { exact: false }).waitFor()
  await page.getByRole('button', { name: '2 notes' }).click()
  await page.getByRole('list', { name: 'Errors and notes' }).getByText('sits snug').waitFor()
})

test('the piece keeps its size while somebody types, and a line half typed is listed when they rest', async () => {
  await page.goto(windlass)
  await page.getByText('Thread, measured').waitFor()
  await page.locator('.cm-line', { hasText: 'round C' }).first().click()
  await page.keyboard.press('End')
  await page.evaluate(() => {
    const measures = document.querySelector('[aria-label=Piece] dl')
    const sizes = new Set<number>()
    let wasEstimated = false
    const look = () => {
      const isEstimated = measures?.textContent?.includes('Thread, estimated') ?? false
      // Once it is measured anew there may be more to say of it, or less.
      if (wasEstimated && !isEstimated) return
      wasEstimated ||= isEstimated
      sizes.add(document.querySelector('[aria-label=Piece] canvas')?.clientHeight ?? 0)
      requestAnimationFrame(look)
    }
    look()
    Object.assign(window, { sizes })
  })
  await page.keyboard.insertText('\n  roun')
  await page.getByText('counts from the last valid text').waitFor()
  const listed = page.getByRole('list', { name: 'Errors and notes' }).getByText('"roun" is not a word')
  await listed.waitFor()
  await page.keyboard.insertText('d C')
  await page.getByText('Thread, estimated').waitFor()
  await listed.waitFor({ state: 'detached' })
  expect(await page.evaluate(() => (window as unknown as { sizes: Set<number> }).sizes.size)).toBe(1)
})

test('the panes of a pattern are dragged and folded, by mouse and by keyboard, and stand like that the next time', async () => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(windlass)
  const ledger = page.getByRole('region', { name: 'Ledger' })
  const tray = page.getByRole('region', { name: 'Tray' })
  await tray.getByText('Lantern green').waitFor()
  const widthOf = async (pane: typeof ledger) => (await pane.boundingBox())?.width ?? 0
  const before = await widthOf(ledger)
  const bar = await page.getByRole('separator').first().boundingBox()
  if (!bar) throw new Error('There is no bar between the panes.')
  const [x, y] = [bar.x + bar.width / 2, bar.y + 200]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x - 100, y, { steps: 4 })
  await page.mouse.up()
  const dragged = await widthOf(ledger)
  expect(Math.abs(before - 100 - dragged)).toBeLessThan(4)
  await page.getByRole('button', { name: 'Toggle end panel' }).focus()
  await page.keyboard.press('Enter')
  await tray.waitFor({ state: 'hidden' })
  await page.reload()
  await page.locator('.cm-line').first().waitFor()
  expect(Math.abs((await widthOf(ledger)) - dragged)).toBeLessThan(4)
  expect(await tray.isVisible()).toBe(false)
  const moved = await page.getByRole('separator').first().boundingBox()
  if (!moved) throw new Error('There is no bar between the panes.')
  await page.mouse.dblclick(moved.x + moved.width / 2, y, { delay: 400 })
  await tray.waitFor()
  expect(Math.abs((await widthOf(ledger)) - before)).toBeLessThan(4)
  await page.getByRole('separator', { name: 'Bar 1: arrows move it' }).focus()
  const is = (width: number) => reads(async () => Math.abs((await widthOf(ledger)) - width) < 4, true)
  await page.keyboard.press('ArrowLeft')
  await is(before - 32)
  await page.keyboard.press('ArrowRight')
  await is(before)
})
