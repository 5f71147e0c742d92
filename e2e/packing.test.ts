import type { Page } from 'playwright-core'
import { password } from '../packages/server/test/shop'
import { type StandIn, standIn } from '../packages/server/test/stand-in'
import { type Visit, visit } from './browser'

let here: Visit
let scale: StandIn
beforeAll(async () => {
  scale = await standIn('scale')
  here = await visit(undefined, scale.env)
})
afterAll(async () => {
  await here.close()
  scale.end()
})

test('a class batch is packed at the bench, through a reload, and closed: the shelf gives up what was used', async () => {
  const odile = await here.shop.as('odile')
  const patternId = await here.shop.idOf('pattern', 'Windlass pendant')
  const colourways = (await odile.ask('GET', `/patterns/${patternId}/colourways`)).body
  const lantern = colourways.find(({ name }: { name: string }) => name === 'Lantern')
  const line = { patternId, version: 1, size: 'petite', colourwayId: lantern.id, kits: 2 }
  const { body } = await odile.ask('POST', '/batches', { name: 'Two seats', dueOn: '2027-03-01', lines: [line] })
  const page = await here.enter('odile')
  await page.goto(`${here.shop.base}/kits/${body.id}`)
  await page.getByRole('button', { name: 'Reserve 2 kits' }).click()
  await page.getByRole('link', { name: 'Pack', exact: true }).click()
  await page.getByRole('heading', { name: 'Packing Two seats' }).waitFor()
  const bag = page.getByRole('region', { name: 'This bag' })
  const tasks = page.getByRole('list', { name: 'Beads to pack' }).getByRole('button')
  await tasks.filter({ hasText: 'Lantern green' }).click()
  await bag.getByText('0.4 g', { exact: true }).waitFor()
  const weight = bag.getByLabel('In the bag, g')
  await weight.fill('0.3')
  await bag.getByText('too little').waitFor()
  await weight.press('Enter')
  await bag.getByText('Bag 1, Windlass pendant', { exact: false }).first().waitFor()
  // On the scale, and Enter once it is steady.
  await weight.fill('')
  await bag.getByText('Set the scale').click()
  await bag.getByLabel('On the pan, g').fill('0.41')
  await bag.getByRole('button', { name: 'Put on the pan' }).click()
  await bag.getByText('right', { exact: true }).waitFor()
  await bag.getByText('0.41 g', { exact: true }).waitFor()
  await bag.getByText('steady', { exact: true }).waitFor()
  await weight.press('Enter')
  await bag.getByText('0.41 g, Odile Marrow').waitFor()
  await bag.getByText('Bag 2, Windlass pendant', { exact: false }).first().waitFor()
  // What still lies on the pan is not taken for the next bag's.
  await bag.getByText('take the last bag off first', { exact: false }).waitFor()
  await weight.press('Enter')
  await bag.getByRole('button', { name: 'Take off' }).click()
  await bag.getByText('take the last bag off first', { exact: false }).waitFor({ state: 'detached' })
  await page.getByText('1 of 10 filled', { exact: false }).waitFor()
  // A scale that sends rubbish is no use: its reading is typed.
  await bag.getByRole('button', { name: 'rubbish' }).click()
  await bag.getByText('The scale sends what cannot be read: type what it shows.').waitFor()
  await page.reload()
  await tasks.filter({ hasText: /Lantern green.*1\/2/ }).waitFor()
  // The rest, bead by bead, Enter after Enter.
  for (let left = 9; left > 0; left--) {
    const [, figure = '', unit = ''] =
      /([\d.]+) (g|m|pcs)/.exec((await bag.getByRole('status').first().textContent()) ?? '') ?? []
    await bag.getByLabel(`In the bag, ${unit}`).fill(figure)
    await bag.getByLabel(`In the bag, ${unit}`).press('Enter')
    await page.getByText(`${11 - left} of 10 filled`, { exact: false }).waitFor()
  }
  await page.getByRole('button', { name: 'Close the batch' }).click()
  await page.getByText('Two seats is closed.').waitFor()
  await page.goto(`${here.shop.base}/stock?find=lantern`)
  await page
    .getByRole('link', { name: /Lantern green/ })
    .first()
    .click()
  await page.getByRole('row', { name: /into kits.*Two seats/ }).waitFor()
})

test('with many tabs open at the packing page each hears the scale and each still works; signed out in one, all are out', async () => {
  const page = await here.enter('odile')
  const odile = await here.shop.as('odile')
  const { body: batches } = await odile.ask('GET', '/batches')
  const { id } = batches.find(({ state }: { state: string }) => state === 'reserved')
  const tabs: Page[] = [page]
  // More than a browser opens connections to a host.
  while (tabs.length < 7) tabs.push(await page.context().newPage())
  for (const tab of tabs) {
    tab.setDefaultTimeout(240_000)
    await tab.goto(`${here.shop.base}/kits/${id}/pack`)
  }
  await scale.play({ fault: 'rubbish', on: false })
  await scale.play({ grams: 0.73 })
  for (const tab of tabs)
    await tab.getByRole('region', { name: 'This bag' }).getByText('0.73 g', { exact: true }).waitFor()
  await scale.play({ grams: 0 })
  // What somebody does elsewhere is told to all of them.
  await odile.ask('PUT', `/batches/${id}`, { name: 'Told to seven', dueOn: '2031-01-01', priority: 2 })
  for (const tab of tabs) await tab.getByRole('heading', { name: 'Packing Told to seven' }).waitFor()
  await page.getByRole('button', { name: 'Sign out' }).click()
  for (const tab of tabs) await tab.getByLabel('Password').waitFor()
  // Signed in again, a tab hears again.
  await page.getByLabel('Sign-in name').fill('odile')
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('heading', { name: 'Bench', exact: true }).waitFor()
  await page.goto(`${here.shop.base}/kits/${id}/pack`)
  await scale.play({ grams: 0.37 })
  await page.getByRole('region', { name: 'This bag' }).getByText('0.37 g', { exact: true }).waitFor()
  await scale.play({ grams: 0 })
})
