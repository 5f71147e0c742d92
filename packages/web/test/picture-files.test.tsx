/** A written pattern as a file of its own has its pictures in it. */
import { logoAt, pictureAt, withPictures } from '../src/writing/picture-files'
import './on-screen'

test('each picture is fetched once and stands where its address stood; other addresses stay', async () => {
  const asked: string[] = []
  Object.assign(globalThis, {
    fetch: async (address: string) => {
      asked.push(address)
      return { ok: true, blob: async () => new Blob([`bytes of ${address}`], { type: 'image/png' }) }
    },
  })
  const [one, two, logo] = [pictureAt(7), pictureAt(77), logoAt('ab12')]
  const text = `<img src="${one}"><img src="${two}"> ![x](${one}) ${logo} <a href="/api/patterns/7">`
  const whole = await withPictures(text)
  const data = (address: string) => `data:image/png;base64,${btoa(`bytes of ${address}`)}`
  expect(whole).toBe(
    `<img src="${data(one)}"><img src="${data(two)}"> ![x](${data(one)}) ${data(logo)} <a href="/api/patterns/7">`,
  )
  expect(asked.sort()).toEqual([logo, one, two].sort())
})

test('where one cannot be fetched there is no file with a hole in it', async () => {
  Object.assign(globalThis, { fetch: async () => ({ ok: false }) })
  await expect(withPictures(pictureAt(7))).rejects.toThrow('A picture could not be fetched. Try again in a moment.')
  Object.assign(globalThis, {
    fetch: async () => {
      throw new TypeError('fetch failed')
    },
  })
  await expect(withPictures(pictureAt(7))).rejects.toThrow('A picture could not be fetched.')
  await expect(withPictures('no pictures')).resolves.toBe('no pictures')
})
