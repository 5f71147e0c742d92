/** Somebody new comes in by a link, and keeps their own way in. */
import { type Visit, visit } from './browser'

let here: Visit
beforeAll(async () => {
  here = await visit()
})
afterAll(() => here.close())

test('the owner adds somebody, who chooses a password by the link, and later another', async () => {
  const owner = await here.enter('isaura', '/people')
  await owner.getByRole('button', { name: 'Add somebody' }).click()
  const form = owner.getByRole('dialog')
  await form.getByLabel('Name', { exact: true }).fill('Wanda Sallow')
  await form.getByLabel('Sign-in name').fill('bram')
  await form.getByRole('checkbox', { name: /^stockroom/ }).check()
  await form.getByRole('checkbox', { name: /^teacher/ }).check()
  await form.getByRole('button', { name: 'Add' }).click()
  await form.getByText('Somebody signs in as "bram" already.').waitFor()
  await form.getByLabel('Sign-in name').fill('wanda')
  await form.getByRole('button', { name: 'Add' }).click()
  const shown = owner.getByRole('dialog', { name: 'A link for Wanda Sallow' })
  const link = await shown.getByText(/\/welcome#/).textContent()
  await shown.getByRole('button', { name: 'Close' }).click()
  await owner
    .getByRole('row', { name: /Wanda Sallow/ })
    .getByText('no password yet')
    .waitFor()

  const page = await here.stranger((link ?? '').trim())
  await page.getByRole('heading', { name: 'Welcome, Wanda Sallow' }).waitFor()
  await page.getByLabel('New password').fill('reeds by the lock')
  await page.getByLabel('Repeat the password').fill('reeds by the dock')
  await page.getByRole('button', { name: 'Save and sign in' }).click()
  await page.getByText('The passwords do not match.').waitFor()
  await page.getByLabel('Repeat the password').fill('reeds by the lock')
  await page.getByRole('button', { name: 'Save and sign in' }).click()
  await page.getByRole('heading', { name: 'Bench', exact: true }).waitFor()

  await page.getByRole('link', { name: 'Wanda Sallow, stockroom, teacher' }).click()
  await page.getByLabel('Current password').fill('reeds by the dock')
  await page.getByLabel('New password').fill('a heron on the weir')
  await page.getByLabel('Repeat the password').fill('a heron on the weir')
  await page.getByRole('button', { name: 'Change password' }).click()
  await page.getByText('That is not your password.').waitFor()
  await page.getByLabel('Current password').fill('reeds by the lock')
  await page.getByRole('button', { name: 'Change password' }).click()
  await page.getByText('Your password is changed.').waitFor()
  await page.reload()
  await page.getByRole('heading', { name: 'Your account' }).waitFor()

  const late = await here.stranger((link ?? '').trim())
  await late.getByText('This link has been used already, or its time is over.').waitFor()
})
