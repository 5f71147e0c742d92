import type { Page } from 'playwright-core'
import { reads, rewrite, tray, type Visit, visit } from './browser'

let here: Visit
let page: Page
beforeAll(async () => {
  here = await visit()
  page = await here.enter('bram', '/patterns')
})
afterAll(() => here.close())

const piece = () => page.getByRole('region', { name: 'Piece' })
const figure = (name: string) => () => piece().locator('dl > div', { hasText: name }).locator('dd').textContent()
/** Wide, high and deep, to the nearest millimetre. */
const sized = (read: () => Promise<string | null>) => async () =>
  ((await read()) ?? '').match(/\d+\.\d/g)?.map((mm) => Math.round(Number(mm)))
const windlass = [22, 26, 5]
const open = async (name: string) => {
  await page.goto(`${here.shop.base}/patterns`)
  await page.getByRole('link', { name }).first().click()
  await page.getByRole('heading', { name }).waitFor()
}

describe('the piece', () => {
  test('settles, and is measured: sizes, thread, and whether the stone is held', async () => {
    await open('Windlass pendant')
    await piece().getByText('Thread, measured').waitFor()
    await reads(sized(figure('Wide, high, deep')), windlass)
    await piece()
      .getByRole('button', { name: /The stone S is held by 1\.\d mm in front and by 1\.\d mm behind/ })
      .click()
    await page.locator('.cm-activeLine', { hasText: 'place S' }).waitFor()
  })

  test('is kept by the browser under the address of the worker that computed it, which another build has not', async () => {
    const kept = () =>
      page.evaluate(
        () =>
          new Promise<string[]>((found, failed) => {
            const opening = indexedDB.open('tessellum-pieces')
            opening.onerror = () => failed(opening.error)
            opening.onsuccess = () => {
              const asking = opening.result.transaction('pieces').objectStore('pieces').getAllKeys()
              asking.onsuccess = () => found(asking.result.map(String))
            }
          }),
      )
    await reads(async () => (await kept()).some((key) => key.includes('Windlass pendant')), true)
    const [address] = ((await kept())[0] as string).split(' ')
    const answer = await page.request.get(new URL(address as string, here.shop.base).href)
    expect(answer.status()).toBe(200)
    expect(answer.headers()['content-type']).toMatch(/^text\/javascript/)
    expect(address).toMatch(/core\.worker-[\w-]{8}\.js$/)
  })

  test('is painted by a worker, on a canvas that the page has handed over', async () => {
    const canvas = piece().locator('canvas')
    const beadsSeen = () =>
      canvas.evaluate((from: HTMLCanvasElement) => {
        const copy = new OffscreenCanvas(from.width, from.height)
        const pen = copy.getContext('2d') as OffscreenCanvasRenderingContext2D
        pen.drawImage(from, 0, 0)
        const { data } = pen.getImageData(0, 0, copy.width, copy.height)
        return data.filter((value, i) => i % 4 === 3 && value > 0).length / (data.length / 4)
      })
    // The pendant fills a good part of its plate, and not all of it.
    await reads(async () => (await beadsSeen()) > 0.15, true)
    expect(await beadsSeen()).toBeLessThan(0.9)
    expect(await canvas.evaluate((from: HTMLCanvasElement) => from.getContext('2d')).catch(String)).toContain(
      'InvalidStateError',
    )
  })

  test('is seen from its sides by keys, with the canvas in hand', async () => {
    const canvas = piece().getByRole('img')
    await canvas.focus()
    await page.keyboard.press('s')
    await piece()
      .getByRole('img', { name: /from the side/ })
      .waitFor()
    await page.keyboard.press('b')
    await piece()
      .getByRole('img', { name: /from the back/ })
      .waitFor()
    const thread = piece().getByRole('switch', { name: 'thread' })
    expect(await thread.isChecked()).toBe(true)
    await canvas.focus()
    await page.keyboard.press('t')
    await reads(() => thread.isChecked(), false)
    await page.keyboard.press('f')
  })

  test('a bead that is chosen finds its line', async () => {
    await page.locator('.cm-line', { hasText: 'pattern Windlass' }).click()
    const box = (await piece().getByRole('img').boundingBox()) as {
      x: number
      y: number
      width: number
      height: number
    }
    // The bail is uppermost.
    await page.mouse.click(box.x + box.width / 2, box.y + box.height * 0.1)
    await page.locator('.cm-activeLine', { hasText: 'loop 9C as bail' }).waitFor()
  })

  test('stays as it was while a line is at fault', async () => {
    await rewrite(page, 'loop 9C', '  lop 9C as bail')
    await page.getByText('counts from the last valid text').waitFor()
    await piece()
      .getByRole('img', { name: /185 beads/ })
      .waitFor()
    await rewrite(page, 'lop 9C', '  loop 9C as bail')
    await page.getByText('counts from the last valid text').waitFor({ state: 'detached' })
  })

  test('of too many beads has no form, says so, and the page goes on', async () => {
    await open('Capstan ring')
    await rewrite(page, 'ring 40A', '  ring 20000A')
    await piece()
      .getByText(/beads are more than the 12,000 whose form is computed/)
      .waitFor()
    await rewrite(page, 'ring 20000A', '  ring 40A')
    await piece().getByText('Thread, measured').waitFor()
    await reads(figure('Beads'), '100')
  })
})

describe('the ledger', () => {
  test('takes lines from people who do not type them', async () => {
    await open('Capstan ring')
    await page.locator('.cm-line', { hasText: 'round A B' }).click()
    await page.getByRole('button', { name: 'Add a line' }).click()
    await page.getByRole('button', { name: /^Fringe/ }).click()
    await page.getByLabel('Beads long').fill('5')
    await page.getByText('fringe 5A end 3B').waitFor()
    await page.getByRole('button', { name: 'Write it into the ledger' }).click()
    await page.locator('.cm-line', { hasText: 'fringe 5A end 3B' }).waitFor()
    // A: the ring's 40, 10 of the mixed round, 5 of the fringe. B: 20, 10 and 20 of the rounds, 3 of the fringe.
    await reads(tray(page), { A: '55', B: '53' })
  })

  test('offers the letters and marks that the text has', async () => {
    await open('Windlass pendant')
    await page.getByLabel('The pattern in notation').click()
    await page.keyboard.press('Control+End')
    await page.keyboard.type('to ba')
    await page.getByRole('option', { name: /bail/ }).click()
    await page.locator('.cm-line', { hasText: /^\s*to bail$/ }).waitFor()
  })
})

describe('the walk', () => {
  const step = () => page.getByRole('region', { name: 'Step' })

  test('goes by keys, line by line and bead by bead, and keeps its place', async () => {
    await open('Heron earrings')
    await page.getByRole('link', { name: 'Walk' }).click()
    await step()
      .getByText(/step 1 of/)
      .waitFor()
    await step().getByText('40 A', { exact: true }).first().waitFor()
    await page.keyboard.press('ArrowRight')
    await step()
      .getByText(/step 2 of/)
      .waitFor()
    await step().getByText('20 A', { exact: true }).waitFor()
    await reads(() => step().locator('p', { hasText: 'So far' }).locator('strong').textContent(), '60 A')
    await step().getByText('Bead by bead').click()
    await step()
      .getByText(/^1 of \d+ of this line$/)
      .waitFor()
    await page.reload()
    await step()
      .getByText(/step 2 of/)
      .waitFor()
  })

  test('ends with a sample that is logged against what was computed', async () => {
    await step().getByRole('button', { name: 'Log a sample' }).click()
    await page.getByLabel('Minutes it took').fill('48')
    await page.getByRole('button', { name: 'Log it' }).click()
    await page.getByText('Say how much thread was used.').waitFor()
    await page.getByLabel(/^Thread really used/).fill('130')
    await page.getByRole('button', { name: 'Log it' }).click()
    await step()
      .getByText(/1 sample logged, the last [+-]?\d/)
      .waitFor()
  })

  test('a teacher may walk and log, the stockroom only walk', async () => {
    const odile = await here.enter('odile')
    await odile.goto(page.url())
    await odile.getByRole('region', { name: 'Step' }).getByText('1 sample logged', { exact: false }).waitFor()
    expect(await odile.getByRole('button', { name: 'Log a sample' }).count()).toBe(0)
    await odile.context().close()
  })
})

test('a page that is older than the shop says so where its code is gone, and goes on once it is there', async () => {
  const old = await here.enter('bram', '/patterns')
  await old.context().route(/\/(evaluate|form)-tasks-/, (route) => route.abort())
  await old.getByRole('link', { name: 'Windlass pendant' }).first().click()
  await old.getByText('Reload the page; what you have typed is kept.').first().waitFor()
  await old.context().unroute(/\/(evaluate|form)-tasks-/)
  await old.reload()
  await old.getByRole('region', { name: 'Piece' }).getByText('Thread, measured').waitFor()
  await old.context().close()
})

test('sizes stand side by side, each with its form', async () => {
  await open('Windlass pendant')
  await page.getByRole('link', { name: 'Sizes' }).click()
  const classic = page.getByRole('article', { name: 'classic' })
  const finished = (article: typeof classic) => () =>
    article
      .getByRole('row', { name: /Finished/ })
      .getByRole('cell')
      .textContent()
  await reads(sized(finished(classic)), windlass)
  const petite = page.getByRole('article', { name: 'petite' })
  await petite
    .getByRole('row', { name: /A cylinder/ })
    .getByText('63', { exact: true })
    .waitFor()
  expect(Number.parseFloat((await finished(petite)()) ?? '')).toBeLessThan(18)
})

test('two versions are compared as text, counts and picture', async () => {
  await open('Sluicegate pendant')
  await rewrite(page, 'ring (A B)', '  ring (2A 2B) x n/4 as wall')
  await rewrite(page, 'round A', '  round B')
  await page
    .getByRole('status')
    .getByText(/Draft saved.*changed since/)
    .waitFor()
  await page.getByRole('link', { name: 'Versions' }).click()
  const text = page.getByRole('region', { name: 'Text' })
  await text.locator('del', { hasText: 'ring (A B) x n/2 as wall' }).waitFor()
  await text.locator('ins', { hasText: 'ring (2A 2B) x n/4 as wall' }).waitFor()
  const row = page.getByRole('region', { name: 'Counts' }).getByRole('row', { name: /^A / })
  // The round's twenty are of B now.
  await reads(() => row.getByRole('cell').allTextContents(), ['40', '20', '-20'])
})
