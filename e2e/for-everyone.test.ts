import { readFileSync } from 'node:fs'
import type { Page } from 'playwright-core'
import { type Visit, visit } from './browser'
import { covered, enlargeText, overlaps, spills, still } from './spills'

let here: Visit
beforeAll(async () => {
  here = await visit()
})
afterAll(() => here.close())

/** Every screen, and classes and batches in every state. */
async function everywhere({ pool, idOf }: Visit['shop']): Promise<string[]> {
  const pattern = `/patterns/${await idOf('pattern', 'Windlass pendant')}`
  const item = await idOf('item', 'BC101')
  const batches = await pool.query('select distinct on (state) id, state from batch order by state, id')
  const classes = await pool.query(
    'select distinct on (state, batch_id is null) id from class order by state, batch_id is null, id',
  )
  const packing = batches.rows.find(({ state }) => state === 'packing')
  const twoDays = await idOf('class', 'Reedbed collar, two days')
  return [
    '/bench',
    '/patterns',
    pattern,
    `${pattern}?do=stitch`,
    `${pattern}?do=paint`,
    `${pattern}/colours`,
    `${pattern}/walk`,
    `${pattern}/sizes`,
    `${pattern}/makers`,
    `${pattern}/pictures`,
    `${pattern}/versions`,
    `${pattern}/written`,
    '/stock',
    `/stock/${item}`,
    '/stock/files',
    '/stock/count',
    '/kits',
    ...batches.rows.map(({ id }) => `/kits/${id}`),
    `/kits/shortage/${item}`,
    '/kits/plan',
    '/kits/make',
    `/kits/${packing.id}/pack`,
    '/kits/buy',
    '/diary',
    '/diary/classes/new',
    ...classes.rows.map(({ id }) => `/diary/classes/${id}`),
    `/diary/classes/${twoDays}`,
    `/diary/classes/${twoDays}/sheet`,
    '/diary/orders',
    '/desk',
    '/customers',
    `/customers/${await idOf('customer', 'Ness Pochard')}`,
    '/suppliers',
    `/suppliers/${await idOf('supplier', 'Brackwater Glass')}`,
    '/counter',
    '/counter/prices',
    '/people',
    '/account',
    '/settings/profile',
    '/settings/money',
    '/settings/documents',
    '/settings/measures',
    '/settings/thread',
    '/settings/kits',
    '/settings/days',
    '/settings/ahead',
    '/settings/teaching',
    '/settings/access',
    '/settings/devices',
    '/settings/costs',
    '/audit',
    '/stand-ins',
    '/help/first-walk',
    '/help/notation',
    '/welcome#nobody',
  ]
}

/** Text out of its box, on other text, or what can be clicked and is not to be got at; each once. */
const wrong = async (page: Page) => [
  ...new Set([...(await spills(page)), ...(await covered(page)), ...(await overlaps(page))]),
]

/** Of a desk, a small laptop, a tablet held upright and a telephone. */
const widths = [1280, 1024, 820, 390]

test('no screen has a serious fault for those who cannot see it or use a mouse, nor text out of its box or on other text, with text twice as large too', async () => {
  const page = await here.enter('isaura')
  const axe = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8')
  const found: string[] = []
  for (const place of await everywhere(here.shop)) {
    await page.goto(here.shop.base + place)
    await page.getByRole('heading', { level: 1 }).first().waitFor()
    await still(page)
    for (const width of widths) {
      await page.setViewportSize({ width, height: 900 })
      await still(page)
      found.push(...(await wrong(page)).map((what) => `${place} at ${width} px: ${what}`))
    }
    await page.setViewportSize({ width: 1280, height: 800 })
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
    await enlargeText(page)
    await still(page)
    found.push(...(await wrong(page)).map((what) => `${place} with text twice as large: ${what}`))
  }
  expect(found).toEqual([])
})
