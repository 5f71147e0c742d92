import { readFileSync } from 'node:fs'
import { type Visit, visit } from './browser'
import { spills } from './spills'

let here: Visit
beforeAll(async () => {
  here = await visit()
})
afterAll(() => here.close())

test('no main screen has a serious fault for those who cannot see it or use a mouse, nor text that runs out of its box', async () => {
  const page = await here.enter('isaura')
  const axe = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8')
  const found: string[] = []
  for (const place of [
    '/bench',
    '/patterns',
    '/patterns/1',
    '/patterns/1?do=stitch',
    '/patterns/1?do=paint',
    '/patterns/1/colours',
    '/patterns/1/written',
    '/stock',
    '/stock/1',
    '/kits',
    '/kits/1',
    '/kits/1/pack',
    '/kits/buy',
    '/diary',
    '/diary/classes/4',
    '/diary/orders',
    '/desk',
    '/people',
    '/account',
    '/welcome#nobody',
  ]) {
    await page.goto(here.shop.base + place)
    await page.getByRole('heading', { level: 1 }).first().waitFor()
    // What is fetched for the page is soon there; the stream of changes never ends.
    await page.waitForTimeout(500)
    found.push(...(await spills(page)).map((spill) => `${place} ${spill}`))
    await page.evaluate(axe)
    const faults = await page.evaluate(async () => {
      const { violations } = await (
        window as unknown as {
          axe: {
            run(options: object): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>
          }
        }
      ).axe.run({ resultTypes: ['violations'], runOnly: ['wcag2a', 'wcag2aa'] })
      return violations
        .filter(({ impact }) => impact === 'serious' || impact === 'critical')
        .map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160)}`)
    })
    found.push(...faults.map((fault) => `${place} ${fault}`))
  }
  expect(found).toEqual([])
})
