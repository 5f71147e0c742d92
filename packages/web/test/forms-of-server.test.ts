import { formedPattern } from '@tessellum/core/form/form-pattern'
import { bytesOfForm, type KeptForm } from '@tessellum/core/form/kept-forms'
import { FormsOfServer } from '../src/piece/forms-of-server'

const source = 'pattern Ferry ring\nbead A round 11/0\npart p\nring 9A\nround A\n'
let known: { digest: string; form: KeptForm }
beforeAll(() => {
  const kept: (typeof known)[] = []
  formedPattern(source, {}, { get: () => undefined, keep: (digest, form) => void kept.push({ digest, form }) })
  known = kept[0] as typeof known
})

const answering = (answer: () => Promise<Response>) => jest.spyOn(globalThis, 'fetch').mockImplementation(answer)
const later = () => new Promise((done) => setTimeout(done, 10))
afterEach(() => jest.restoreAllMocks())

test('a form is asked for once, and is there when it has come', async () => {
  const asked = answering(async () => new Response(Buffer.from(bytesOfForm(known.form))))
  const forms = new FormsOfServer((digest) => `/forms/${digest}`)
  for (let look = 0; look < 3; look++) expect(forms.get(known.digest)).toBeUndefined()
  await later()
  expect(forms.get(known.digest)).toEqual(known.form)
  expect(asked.mock.calls).toEqual([[`/forms/${known.digest}`]])
})

test.each<[string, () => Promise<Response>]>([
  ['has none', async () => new Response(null, { status: 204 })],
  ['refuses', async () => new Response('{}', { status: 401 })],
  ['cannot be reached', async () => Promise.reject(new TypeError('Failed to fetch'))],
  ['sends half of it', async () => new Response(Buffer.from(bytesOfForm(known.form).slice(0, 160)))],
])('where the server %s, the piece is computed here, to the same place', async (_, answer) => {
  answering(answer)
  const forms = new FormsOfServer((digest) => `/forms/${digest}`)
  forms.get(known.digest)
  await later()
  expect(forms.get(known.digest)).toBeUndefined()
  expect(formedPattern(source, {}, forms).form?.piece.at).toEqual(known.form.at)
})

test('steps of a piece are not asked for', () => {
  const asked = answering(async () => new Response(null, { status: 204 }))
  new FormsOfServer((digest) => digest).get('0123456789abcdef-12')
  expect(asked).not.toHaveBeenCalled()
})
