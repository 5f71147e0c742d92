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
const screens: Readonly<Record<string, (shop: Visit['shop']) => Promise<string[]>>> = {
  async patterns({ idOf }) {
    const pattern = `/patterns/${await idOf('pattern', 'Windlass pendant')}`
    const parts = [
      '?do=stitch',
      '?do=paint',
      '/colours',
      '/walk',
      '/sizes',
      '/makers',
      '/pictures',
      '/versions',
      '/written',
    ]
    return ['/patterns', pattern, ...parts.map((part) => pattern + part), '/desk']
  },
  async 'stock and kits'({ pool, idOf }) {
    const item = await idOf('item', 'BC101')
    const { rows } = await pool.query('select distinct on (state) id, state from batch order by state, id')
    const packing = rows.find(({ state }) => state === 'packing')
    return [
      ...['/bench', '/stock', `/stock/${item}`, '/stock/files', '/stock/count'],
      ...['/kits', '/kits/plan', '/kits/make', '/kits/buy', `/kits/shortage/${item}`],
      ...rows.map(({ id }) => `/kits/${id}`),
      `/kits/${packing.id}/pack`,
    ]
  },
  async 'diary, customers and counter'({ pool, idOf }) {
    const { rows } = await pool.query(
      'select distinct on (state, batch_id is null) id from class order by state, batch_id is null, id',
    )
    const twoDays = await idOf('class', 'Reedbed collar, two days')
    return [
      ...['/diary', '/diary/classes/new', '/diary/orders', '/counter', '/counter/prices', '/customers', '/suppliers'],
      ...[...rows.map(({ id }) => id), twoDays].map((id) => `/diary/classes/${id}`),
      `/diary/classes/${twoDays}/sheet`,
      `/customers/${await idOf('customer', 'Ness Pochard')}`,
      `/suppliers/${await idOf('supplier', 'Brackwater Glass')}`,
    ]
  },
  async 'people, settings and help'() {
    const settings = [
      ...['profile', 'money', 'documents', 'measures', 'thread', 'kits'],
      ...['days', 'ahead', 'teaching', 'access', 'devices', 'costs'],
    ]
    return [
      ...settings.map((page) => `/settings/${page}`),
      ...['/people', '/account', '/audit', '/stand-ins', '/help/first-walk', '/help/notation', '/welcome#nobody'],
    ]
  },
}

/** Text out of its box, on other text, or what can be clicked and is not to be got at; each once. */
const wrong = async (page: Page) => [
  ...new Set([...(await spills(page)), ...(await covered(page)), ...(await overlaps(page))]),
]

/** Of a desk, a small laptop, a tablet held upright and a telephone. */
const widths = [1280, 1024, 820, 390]

test.each(Object.entries(screens))(
  'no screen of %s has a serious fault for those who cannot see it or use a mouse, nor text out of its box or on other text, with text twice as large too',
  async (_, placesOf) => {
    const page = await here.enter('isaura')
    const axe = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8')
    const found: string[] = []
    for (const place of await placesOf(here.shop)) {
      await page.goto(here.shop.base + place)
      await page.getByRole('heading', { level: 1 }).first().waitFor()
      await still(page)
      for (const width of widths) {
        await page.setViewportSize({ width, height: 900 })
        await still(page, 6)
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
      await still(page, 6)
      found.push(...(await wrong(page)).map((what) => `${place} with text twice as large: ${what}`))
    }
    expect(found).toEqual([])
  },
)
