/** The pages' part of `npm run bench`: what the first load brings over the wire, and how soon the pattern page answers to a key. */
import net from 'node:net'
import { chromium } from 'playwright-core'
import { chromiumPath } from './set-up/debian.mjs'
import { say } from './set-up/say.mjs'

const tube = (title, beads) =>
  `pattern ${title}\nbead A cylinder 11/0\nbead B cylinder 11/0\npart tube\nring 100A\nround B\n${'round A\n'.repeat(Math.round((beads - 100) / 50) - 1)}finish\n`

/**
 * @param evaluatePattern of the core, to measure by
 * @param caller who has signed in to the shop and may write patterns
 */
export async function benchPage({ base }, caller, evaluatePattern) {
  say('Pages, in Chromium')
  const executablePath = chromiumPath()
  if (!executablePath) return say('  Chromium is not installed; "npm test" installs it.')
  const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu'] })
  const wire = await countingProxy(new URL(base).port)
  const [name, value] = caller.cookie.split('=')
  /** A browser that has never been here. */
  const stranger = async () => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    await context.addCookies([{ name, value: decodeURIComponent(value), url: wire.base }])
    return context.newPage()
  }
  const patternOf = async (title, beads) =>
    (await caller.ask('POST', '/patterns', { source: tube(title, beads) })).body.id
  const small = await patternOf('Short tube', 500)
  for (const [page, at] of [
    ['the bench', '/'],
    ['a pattern', `/patterns/${small}`],
  ]) {
    say(`  ${page.padEnd(20)} first load ${(await wire.loadedBy(await stranger(), at)).toFixed(0)} kB over the wire`)
  }
  for (const beads of [2_000, 5_000]) {
    const source = tube(`Tube of ${beads}`, beads)
    const id = await patternOf(`Tube of ${beads}`, beads)
    const evaluated = middle(Array.from({ length: 21 }, () => timeOf(() => evaluatePattern(source))))
    const page = await stranger()
    await page.goto(`${wire.base}/patterns/${id}`)
    const { waits, tasks } = await typing(page)
    say(
      `  ${String(beads).padStart(7)} beads: a figure changes ${middle(waits).toFixed(0)} ms after the key (p95 ${at95(waits).toFixed(0)}), evaluating alone takes ${evaluated.toFixed(0)} ms; ${tasks.length} tasks over 50 ms while typing and settling, the longest ${Math.max(0, ...tasks).toFixed(0)} ms`,
    )
    await page.close()
  }
  await browser.close()
  wire.close()
}

const sorted = (all) => [...all].sort((a, b) => a - b)
const middle = (all) => sorted(all)[all.length >> 1]
const at95 = (all) => sorted(all)[Math.floor(all.length * 0.95)]

function timeOf(act) {
  const from = performance.now()
  act()
  return performance.now() - from
}

/** Between browsers and the server, counting what comes: of pages and of their workers alike. */
async function countingProxy(port) {
  const open = new Set()
  let [bytes, cameAt] = [0, 0]
  const server = net.createServer((browser) => {
    const shop = net.connect(Number(port), '127.0.0.1')
    for (const end of [browser, shop])
      open.add(end.on('error', () => end.destroy()).on('close', () => open.delete(end)))
    shop.on('data', ({ length }) => {
      bytes += length
      cameAt = performance.now()
    })
    browser.pipe(shop).pipe(browser)
  })
  await new Promise((listening) => server.listen(0, '127.0.0.1', listening))
  const base = `http://127.0.0.1:${server.address().port}`
  return {
    base,
    /** @returns kB, once nothing has come for three seconds */
    async loadedBy(page, at) {
      const before = bytes
      await page.goto(base + at)
      await page.getByRole('heading', { level: 1 }).waitFor()
      while (performance.now() - cameAt < 3000) await page.waitForTimeout(200)
      await page.context().close()
      return (bytes - before) / 1000
    },
    close() {
      for (const end of open) end.destroy()
      server.close()
    },
  }
}

const rows = 20
/** As somebody types who is quick. */
const betweenKeysMs = 120

/** Lets the piece settle, writes rows, each once the last has shown, and lets it settle again. */
async function typing(page) {
  const text = page.getByLabel('The pattern in notation')
  await page.getByText('Thread, measured').waitFor({ timeout: 240_000 })
  await page.getByRole('region', { name: 'Tray' }).getByText('B', { exact: true }).first().waitFor()
  await page.evaluate(() => {
    window.tasks = []
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) window.tasks.push(duration)
    }).observe({ type: 'longtask' })
    addEventListener(
      'keydown',
      ({ key, timeStamp }) => {
        if (key === 'B') window.keyAt = timeStamp
      },
      true,
    )
    const tray = document.querySelector('[aria-label=Tray]')
    window.waits = []
    new MutationObserver(() => {
      if (window.keyAt === undefined) return
      window.waits.push(performance.now() - window.keyAt)
      window.keyAt = undefined
    }).observe(tray, { subtree: true, childList: true, characterData: true })
  })
  await text.locator('.cm-line', { hasText: 'round B' }).click()
  await page.keyboard.press('End')
  // Each is a whole row more, once its letter is there.
  for (let row = 0; row < rows; row++) {
    await page.keyboard.insertText('\nround ')
    await page.waitForTimeout(betweenKeysMs)
    await page.keyboard.press('B')
    await page.waitForFunction((shown) => window.waits.length > shown, row)
  }
  await page.waitForFunction(() => document.querySelector('[aria-label=Settling]') === null, undefined, {
    timeout: 240_000,
  })
  return page.evaluate(() => ({ waits: window.waits, tasks: window.tasks }))
}
