import { patternFormat } from '@tessellum/contract/pattern-file'
import type { Item } from '@tessellum/contract/stock'
import { foundOnShelf, pictureFile, readPatternFile } from '../src/patterns/pattern-file'

const file = (content: string | Uint8Array, name = 'eddy.tess') => new File([content as BlobPart], name)
const bead = {
  code: 'BC-101',
  maker: 'Backwater Glass',
  kind: 'cylinder',
  size: '11/0',
  colourCode: 'BC-101',
  colourName: 'Lantern green',
  finish: 'lustre',
  colour: '#2f5d50',
}
const whole = {
  format: patternFormat,
  formatVersion: 1,
  source: 'pattern Eddy\n',
  words: [],
  colourways: [{ name: 'Lantern', choices: [{ role: 'A', size: '', counting: 'all', item: bead }] }],
}

test('the notation by itself comes in as it is, whatever its ends of lines', async () => {
  expect(await readPatternFile(file('pattern Eddy\r\nmakes 2\rpart p\n'))).toEqual({
    source: 'pattern Eddy\nmakes 2\npart p\n',
    words: [],
    colourways: [],
    pictures: [],
  })
})

test.each<[string, File, RegExp]>([
  ['a file cut off', file(JSON.stringify(whole).slice(0, -9), 'cut.json'), /^cut\.json breaks off or has a slip/],
  ['another kind of file', file('{"a": 1}', 'list.json'), /^list\.json is not a pattern: it has no "format"/],
  ['a later one', file(JSON.stringify({ ...whole, formatVersion: 9 }), 'new.json'), /version 9 .* reads version 1/],
  [
    'a colour that is none',
    file(JSON.stringify(whole).replace('#2f5d50', 'green'), 'colour.json'),
    /an error at colourways\.0\.choices\.0\.item\.colour: A colour is written like/,
  ],
  ['a picture', file(new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0xff]), 'eddy.png'), /^eddy\.png is not text in UTF-8/],
  ['something huge', file(new Uint8Array(4_000_001), 'huge.tess'), /^huge\.tess has 5 MB; a pattern has at most 4 MB/],
])('%s is refused with its name and what is wrong', async (_, given, said) => {
  await expect(readPatternFile(given)).rejects.toThrow(said)
})

test('pictures come out of a file byte by byte, in their order; what is no picture in it is refused with its place', async () => {
  const pictured = (jpeg: string) => ({
    ...whole,
    pictures: [{ kind: 'finished', step: null, caption: 'Front', jpeg }],
  })
  const bytes = Uint8Array.from({ length: 1000 }, (_, i) => (i * 7) % 256)
  const { pictures } = await readPatternFile(
    file(JSON.stringify(pictured(Buffer.from(bytes).toString('base64'))), 'eddy.json'),
  )
  const [picture] = pictures.map(pictureFile)
  expect([picture?.name, picture?.type]).toEqual(['picture-1.jpg', 'image/jpeg'])
  expect(new Uint8Array((await picture?.arrayBuffer()) as ArrayBuffer)).toEqual(bytes)
  await expect(readPatternFile(file(JSON.stringify(pictured('no base64!')), 'bad.json'))).rejects.toThrow(
    /^bad\.json has an error at pictures\.0\.jpeg/,
  )
})

test('colourways find the like of their beads: by code, or by maker, kind, size and colour; what is not there is said', async () => {
  const { colourways } = await readPatternFile(file(JSON.stringify(whole), 'eddy.json'))
  const item = (more: object) => ({ id: 1, ...bead, ...more }) as unknown as Item
  const on = (...shelf: Item[]) => foundOnShelf(colourways, shelf)
  const found = { colourways: [{ name: 'Lantern', choices: [{ role: 'A', size: '', counting: 'all', itemId: 5 }] }] }
  expect(on(item({ id: 4, code: 'BC-102', colourCode: 'BC-102' }), item({ id: 5, maker: 'Somebody else' }))).toEqual({
    ...found,
    missing: [],
  })
  expect(on(item({ id: 5, code: 'our own' }))).toEqual({ ...found, missing: [] })
  expect(on(item({ kind: 'round' }))).toEqual({
    colourways: [{ name: 'Lantern', choices: [] }],
    missing: [{ colourway: 'Lantern', what: 'A: cylinder 11/0 Lantern green (BC-101), Backwater Glass' }],
  })
})
