import type { Page } from 'playwright-core'
import { wire } from '../packages/server/test/wire'
import { choose, reads, rewrite, tray, type Visit, visit } from './browser'

let here: Visit
let page: Page
let windlass: string
let heron: string
let cable: Awaited<ReturnType<typeof wire>>
beforeAll(async () => {
  here = await visit(async (port) => {
    cable = await wire(port)
    return cable.port
  })
  windlass = await here.pageOf('pattern', 'Windlass pendant')
  heron = await here.pageOf('pattern', 'Heron earrings')
  page = await here.enter('bram', '/patterns')
})
afterAll(async () => {
  await here.close()
  await cable.cut()
})

const status = (text: string | RegExp) => page.getByRole('status').getByText(text).waitFor()
const errors = () => page.getByRole('list', { name: 'Errors and notes' }).getByRole('button', { name: /Error/ })

test('broken notation stays as typed, every fault is shown in its line, and the last good counts are marked old', async () => {
  await page.goto(windlass)
  await reads(tray(page), { A: '77', B: '11', C: '97', S: '1' })
  await rewrite(page, 'reinforce', '  rienforce')
  await rewrite(page, 'loop 9C', '  loop 9Q as bail')
  await reads(() => errors().count(), 2)
  await errors().filter({ hasText: 'line 24' }).getByText('"rienforce" is not a word of the notation.').waitFor()
  await errors().filter({ hasText: 'line 29' }).getByText('There is no bead Q in this pattern.').waitFor()
  await page.getByText('counts from the last valid text').waitFor()
  await reads(tray(page), { A: '77', B: '11', C: '97', S: '1' })
  expect(await page.getByRole('button', { name: 'Save a version' }).isDisabled()).toBe(true)

  await status(/Draft saved/)
  await page.reload()
  await page.getByText('rienforce', { exact: true }).waitFor()
})

test('a mend is one click away in the line itself', async () => {
  const wrong = page.locator('.cm-lintRange-error', { hasText: 'rienforce' })
  await wrong.waitFor()
  // The bubble goes when the faults are worked out anew, as they are while the page still loads: then one points again.
  for (let tries = 0; (await wrong.count()) > 0 && tries < 10; tries++) {
    await wrong.hover()
    await page
      .getByRole('button', { name: 'Write reinforce' })
      .click({ timeout: 3000 })
      .catch(() => page.mouse.move(0, 0))
  }
  await rewrite(page, 'loop 9Q', '  loop 9C as bail')
  await reads(() => errors().count(), 0)
  await reads(() => page.getByText('counts from the last valid text').count(), 0)
})

test('without the shop, what is typed is kept here and saved when it answers again', async () => {
  await page.context().setOffline(true)
  await rewrite(page, 'loop 9C', '  loop 11C as bail')
  await status(/Not saved yet: kept in this browser/)
  await reads(tray(page), { A: '77', B: '11', C: '99', S: '1' })
  await page.context().setOffline(false)
  await status(/Draft saved/)
  const { rows } = await here.shop.pool.query(`select source from pattern where title = 'Windlass pendant'`)
  expect(rows[0].source).toContain('loop 11C as bail')
})

test('when two people change one pattern, neither text is lost: each says whose goes on', async () => {
  const isaura = await here.shop.as('isaura')
  const heronId = await here.shop.idOf('pattern', 'Heron earrings')
  const theirs = async (text: string) => {
    const { body } = await isaura.ask('GET', `/patterns/${heronId}`)
    await isaura.ask('PUT', `/patterns/${heronId}/draft`, {
      source: `${body.source}${text}\n`,
      revision: body.revision,
    })
  }
  const source = async () => (await isaura.ask('GET', `/patterns/${heronId}`)).body.source as string
  await page.goto(heron)
  await page.getByText('round B').first().waitFor()
  // Kept from the page, so that it cannot take their text over before it is changed here; a stream that tabs share could not be.
  await page.addInitScript(() => Reflect.deleteProperty(globalThis, 'SharedWorker'))
  await page.route('**/api/changes', (route) => route.abort())
  await page.reload()
  await page.getByText('round B').first().waitFor()
  await theirs('# theirs')
  await rewrite(page, 'pattern Heron', 'pattern Heron earrings, mine')
  await page.getByRole('button', { name: 'Save mine over theirs' }).click()
  await status(/Draft saved/)
  expect(await source()).toContain('earrings, mine')

  await theirs('# theirs again')
  await rewrite(page, 'pattern Heron', 'pattern Heron earrings, mine once more')
  await page.getByRole('alert').getByText('Somebody else has saved').waitFor()
  // Still there after a reload, and still to be chosen.
  await page.reload()
  await page.getByRole('heading', { name: 'Heron earrings, mine once more' }).waitFor()
  await page.getByRole('button', { name: 'Drop mine, show theirs' }).click()
  await reads(() => page.getByRole('heading', { level: 1 }).textContent(), 'Heron earrings, mine')
  expect(await source()).toContain('# theirs again')
  await page.unroute('**/api/changes')
})

test('a form keeps what is typed into it through Escape, Back and a reload, until it is sent or begun again', async () => {
  const page = await here.enter('isaura')
  await page.goto(`${here.shop.base}/stock`)
  await page.getByRole('button', { name: 'New item' }).click()
  await page.getByLabel('Code', { exact: true }).fill('HALF-TYPED')
  await page.keyboard.press('Escape')
  await page.getByLabel('Code', { exact: true }).waitFor({ state: 'hidden' })
  await page.getByRole('button', { name: 'New item' }).click()
  await reads(() => page.getByLabel('Code', { exact: true }).inputValue(), 'HALF-TYPED')
  await page.getByRole('button', { name: 'Start again' }).click()
  await page.getByRole('button', { name: 'Throw it away' }).click()
  await reads(() => page.getByLabel('Code', { exact: true }).inputValue(), '')
  await page.keyboard.press('Escape')

  await page.goto(`${here.shop.base}/kits/plan`)
  await page.getByLabel('Name').fill('Tide tables')
  await choose(page, 'Pattern', 'Windlass pendant')
  await page.getByLabel('Kits', { exact: true }).fill('7')
  await page.goto(`${here.shop.base}/kits`)
  await page.goBack()
  await page.reload()
  await page.getByText('What you had typed is still here.').waitFor()
  expect(await page.getByLabel('Name').inputValue()).toBe('Tide tables')
  expect(await page.getByLabel('Kits', { exact: true }).inputValue()).toBe('7')
  await page.getByRole('button', { name: 'Save the plan' }).click()
  await page.getByRole('heading', { name: 'Tide tables' }).waitFor()
  await page.goto(`${here.shop.base}/kits/plan`)
  await reads(() => page.getByLabel('Name').inputValue(), '')
})

test('own words are saved when Escape is pressed in the middle of them, also while the shop is away', async () => {
  const words = page.getByLabel('Instead, step 1', { exact: true })
  const open = async () => {
    await page.goto(`${windlass}/written?version=draft`)
    await page.getByRole('button', { name: 'Own words' }).click()
  }
  await open()
  await page.getByRole('button', { name: 'Say step 1 in your own words' }).click()
  await page.context().setOffline(true)
  await words.fill('Begin with the ring.')
  await page.keyboard.press('Escape')
  await words.waitFor({ state: 'hidden' })
  await page.context().setOffline(false)
  await open()
  await reads(() => words.inputValue(), 'Begin with the ring.')
  const kept = async () =>
    (
      await here.shop.pool.query(
        `select instead from step_words join pattern on pattern.id = pattern_id where title = 'Windlass pendant'`,
      )
    ).rows
  await reads(kept, [{ instead: 'Begin with the ring.' }])
})

test('a form whose line is still being fetched cannot be sent half', async () => {
  let fetched = () => {}
  const held = new Promise<void>((done) => {
    fetched = done
  })
  await page.route('**/api/patterns/*/versions/*', async (route) => {
    await held
    await route.continue()
  })
  await page.goto(`${here.shop.base}/diary/classes/new`)
  await page.getByLabel('Class', { exact: true }).fill('Slow water')
  await page.getByLabel('Where').fill('the long table')
  await choose(page, 'Who teaches', 'Corin Vetch')
  await choose(page, 'Pattern', 'Windlass pendant')
  const keep = page.getByRole('button', { name: 'Save the class' })
  expect(await keep.isDisabled()).toBe(true)
  fetched()
  await keep.click()
  await page.getByRole('heading', { name: 'Slow water' }).waitFor()
  await page.unroute('**/api/patterns/*/versions/*')
})

test('a page that the shop has outgrown shows what it still understands, and nothing that it does not', async () => {
  const contracts: string[] = []
  page.on('request', (request) => /assets\/api-/.test(request.url()) && contracts.push(request.url()))
  await page.goto(`${here.shop.base}/kits`)
  const row = page.getByRole('link', { name: /Towpath fair/ })
  await row.waitFor()
  expect(contracts).toEqual([])
  let answers = (batches: readonly object[]) => batches
  await page.route('**/api/batches', async (route) => {
    const response = await route.fetch()
    const headers = { ...response.headers(), 'x-page-build': 'index-of-tomorrow' }
    await route.fulfill({ response, headers, json: answers(await response.json()) })
  })
  await page.reload()
  await row.waitFor()
  expect(contracts).toHaveLength(1)
  answers = (batches) => batches.map((batch) => ({ ...batch, name: undefined }))
  await page.reload()
  await page.getByText('The shop sent an answer that this page does not understand.').waitFor()
  await page.unroute('**/api/batches')
})

test('without its database the shop says so on a clear page, and the page opens by itself afterwards', async () => {
  await cable.cut()
  await page.goto(`${here.shop.base}/stock`)
  await page.getByRole('heading', { name: 'The shop’s records cannot be reached' }).waitFor()
  await cable.mend()
  await page.getByRole('heading', { name: 'Stock' }).waitFor()
  await page.getByText(/^\d+ items$/).waitFor()
})

test('what another person does arrives on an open page', async () => {
  const odile = await here.shop.as('odile')
  await page.goto(`${here.shop.base}/stock?find=Kingfisher+cylinder`)
  const free = page
    .getByRole('row', { name: /Kingfisher/ })
    .getByRole('cell')
    .last()
  const before = Number.parseFloat((await free.textContent()) ?? '')
  const { rows } = await here.shop.pool.query(`select id from lot where code = 'BC185/2'`)
  await odile.ask('POST', `/lots/${rows[0].id}/moves`, { kind: 'sale', quantity: 1000, reason: 'counter' })
  await reads(async () => Number.parseFloat((await free.textContent()) ?? ''), before - 1)
})

test('a dialog that cannot be loaded leaves the page as it is, and opens when it is asked for again', async () => {
  const bram = await here.enter('bram', new URL(windlass).pathname)
  const code = /\/assets\/(command-bar|keep-dialog)-/
  await bram.route(code, (route) => route.abort())
  await bram.keyboard.press('Control+k')
  await bram.getByText('This could not be loaded from the shop.').waitFor()
  await bram.getByRole('button', { name: 'Save a version' }).click()
  await reads(() => bram.getByText('This could not be loaded').count(), 2)
  await bram.unroute(code)
  await bram.getByRole('button', { name: 'Save a version' }).click()
  await bram.getByRole('dialog', { name: 'Save a version' }).getByRole('button', { name: 'Cancel' }).click()
  await bram.keyboard.press('Control+k')
  await bram.getByRole('dialog').getByRole('combobox').waitFor()
  await reads(() => bram.getByText('This could not be loaded').count(), 0)
})

test('the keyboard alone goes to a place, finds a batch and opens it', async () => {
  await page.keyboard.press('Alt+2')
  await page.getByRole('heading', { name: 'Patterns', exact: true }).waitFor()
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find' }).fill('market')
  await page.getByRole('option', { name: 'Market table batch' }).waitFor()
  await page.keyboard.press('Enter')
  await page.getByRole('heading', { name: 'Market table' }).waitFor()
})

test('a teacher reads everything and is offered nothing to change', async () => {
  const corin = await here.enter('corin')
  await corin.goto(heron)
  await corin.getByText('Read only').waitFor()
  expect(await corin.getByRole('button', { name: 'Save a version' }).count()).toBe(0)
  expect(await corin.getByLabel('The pattern in notation').getAttribute('contenteditable')).toBe('false')
  await corin.goto(await here.pageOf('batch', 'Lock keepers’ evening'))
  await corin.getByRole('heading', { name: 'Lock keepers’ evening' }).waitFor()
  expect(await corin.getByRole('button', { name: /Reserve|Call off/ }).count()).toBe(0)
  await corin.goto(`${here.shop.base}/nowhere`)
  await corin.getByRole('heading', { name: 'There is nothing at this address' }).waitFor()
})
