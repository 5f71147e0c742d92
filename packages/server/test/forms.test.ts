import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { formedPattern } from '@tessellum/core/form/form-pattern'
import { bytesOfForm, type KeptForm } from '@tessellum/core/form/kept-forms'
import { FormFiles, formsFolder, pruneForms } from '../src/forms/form-files'
import { openShop } from './shop'

let folder: string
beforeEach(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'tessellum-forms-'))
})
afterEach(() => rmSync(folder, { recursive: true }))

const source = 'pattern Ferry ring\nbead A round 11/0\npart p\nring 9A\nround A\n'
const nothing = { get: () => undefined, keep: () => undefined }

function computed(text = source): { digest: string; form: KeptForm } {
  const kept: { digest: string; form: KeptForm }[] = []
  formedPattern(text, {}, { ...nothing, keep: (digest, form) => void kept.push({ digest, form }) })
  return kept[0] as { digest: string; form: KeptForm }
}

test('a form that one thread has kept is found by another; one that is damaged is computed again', () => {
  const { digest, form } = computed()
  const [one, other, third] = [new FormFiles(folder), new FormFiles(folder), new FormFiles(folder)]
  one.keep(digest, form)
  expect(other.get(digest)).toEqual(form)
  expect(other.get('0000000000000000')).toBeUndefined()
  writeFileSync(path.join(folder, digest), readFileSync(path.join(folder, digest)).subarray(0, 100))
  const keep = jest.spyOn(third, 'keep')
  const { form: again } = formedPattern(source, {}, third)
  expect(again?.piece.at).toEqual(form.at)
  expect(keep).toHaveBeenCalledTimes(1)
  expect(readdirSync(folder)).toEqual([digest])
  expect(new FormFiles(folder).get(digest)).toEqual(form)
})

test('where no file can be written, forms are computed all the same, and that is told once', () => {
  const warn = jest.spyOn(process, 'emitWarning').mockImplementation(() => undefined)
  writeFileSync(path.join(folder, 'no folder'), '')
  const files = new FormFiles(path.join(folder, 'no folder'))
  const { form } = computed()
  for (let time = 0; time < 2; time++) expect(formedPattern(source, {}, files).form?.piece.at).toEqual(form.at)
  expect(warn.mock.calls.map(([words]) => String(words))).toEqual([expect.stringContaining('cannot be kept in')])
  warn.mockRestore()
})

test('those that have not been used for longest are deleted, and those of other builds', async () => {
  const { form } = computed()
  const size = bytesOfForm(form).length
  const [now, before] = ['a'.repeat(64), 'b'.repeat(64)]
  const files = new FormFiles(formsFolder(folder, now))
  // What else somebody keeps there is none of ours.
  writeFileSync(path.join(folder, 'accounts'), 'of the house')
  mkdirSync(path.join(folder, 'letters'))
  for (const [k, digest] of ['a', 'b', 'c', 'd'].entries()) {
    files.keep(digest, form)
    utimesSync(path.join(folder, now, digest), 1000 + k, 1000 + k)
  }
  new FormFiles(formsFolder(folder, before)).keep('a', form)
  files.get('a')
  await pruneForms(folder, now, 3 * size)
  expect(readdirSync(folder).sort()).toEqual([now, 'accounts', 'letters'].sort())
  expect(readdirSync(path.join(folder, now)).sort()).toEqual(['a', 'c', 'd'])
  await pruneForms(path.join(folder, 'not there'), now)
})

test('a page is given a form that the server has computed; without a folder it keeps none', async () => {
  const shop = await openShop(undefined, { FORMS: folder })
  const bram = await shop.as('bram')
  const { digest, form } = computed()
  expect((await bram.ask('GET', `/forms/${digest}`)).status).toBe(204)
  const { body } = await bram.ask<{ id: number }>('POST', '/patterns', { source })
  let answer = await bram.ask<ArrayBuffer>('GET', `/forms/${digest}`)
  // It is drawn in the background once somebody looks at the list.
  await bram.ask('GET', '/library?text=Ferry')
  for (; answer.status === 204; answer = await bram.ask('GET', `/forms/${digest}`))
    await new Promise((done) => setTimeout(done, 50))
  expect(new Uint8Array(answer.body)).toEqual(bytesOfForm(form))
  expect((await bram.ask('GET', '/forms/..%2Fmain.js')).status).toBe(404)
  expect((await bram.ask('GET', `/patterns/${body.id}`)).status).toBe(200)
  await shop.close()
  const plain = await openShop(undefined, { FORMS: '' })
  expect((await (await plain.as('bram')).ask('GET', `/forms/${digest}`)).status).toBe(204)
  await plain.close()
})
