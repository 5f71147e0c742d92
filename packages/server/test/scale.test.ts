import net from 'node:net'
import type { ScaleNews } from '@tessellum/contract/scale'
import { listenToScale, readLine, zeroScale } from '../src/devices/scale'
import { type StandIn, standIn } from './stand-in'

let scale: StandIn
let heard: ScaleNews[]
let stop: () => void
beforeAll(async () => {
  scale = await standIn('scale')
})
beforeEach(() => {
  heard = []
  stop = listenToScale(scale.address, (news) => heard.push(news))
})
afterEach(async () => {
  stop()
  for (const fault of ['rubbish', 'silent', 'half-line', 'drift', 'shaking', 'overload'])
    await scale.play({ fault, on: false })
})
afterAll(() => scale.end())

/** Only what never comes runs into this, however slow the machine. */
const maxTries = 6000

/** Waits until the scale has said something, from now on or from what was heard before. */
async function hears(what: (news: ScaleNews) => boolean, from = heard.length): Promise<ScaleNews> {
  for (let tries = 0; tries < maxTries; tries++) {
    const found = heard.slice(from).find(what)
    if (found) return found
    await new Promise((done) => setTimeout(done, 40))
  }
  throw new Error(`only heard ${JSON.stringify(heard.slice(-5))}`)
}
const steady = (mg: number) => (news: ScaleNews) => 'mg' in news && news.steady && news.mg === mg
const gone = (why: string) => (news: ScaleNews) => 'gone' in news && news.gone === why

test.each([
  ['0.412 g steady', { mg: 412, steady: true }],
  ['-0.003 g moving\r', { mg: -3, steady: false }],
  ['over', { gone: 'over' }],
  ['0.412', undefined],
  ['1e9 g steady', undefined],
  ['', undefined],
])('%j reads as %j', (line, news) => expect(readLine(line)).toEqual(news))

test('what is put on the pan is read once it is steady, and set to nought when asked', async () => {
  await scale.play({ grams: 0.4 })
  await hears((news) => 'mg' in news && !news.steady)
  await hears(steady(400))
  await zeroScale(scale.address)
  await hears(steady(0))
  await scale.play({ grams: 0 })
  await hears(steady(-400))
  await zeroScale(scale.address)
})

test('a scale that shakes or drifts is never steady; one that carries too much says so', async () => {
  await scale.play({ fault: 'shaking', on: true })
  await hears((news) => 'mg' in news && !news.steady)
  await scale.play({ fault: 'shaking', on: false })
  await scale.play({ fault: 'overload', on: true })
  await hears(gone('over'))
})

test('rubbish is told from readings, silence is noticed, and a pulled plug is put back', async () => {
  await scale.play({ fault: 'rubbish', on: true })
  await hears(gone('unclear'))
  await scale.play({ fault: 'rubbish', on: false })
  await hears((news) => 'mg' in news)
  // A line that stops in the middle, again and again, weighs nothing either.
  for (const fault of ['silent', 'half-line']) {
    await scale.play({ fault, on: true })
    await hears((news) => 'gone' in news)
    await scale.play({ fault, on: false })
    await hears((news) => 'mg' in news)
  }
  // The plug may be out before the answer that it is.
  const before = heard.length
  await scale.play({ drop: true })
  await hears(gone('unreachable'), before)
  await hears((news) => 'mg' in news)
})

test('a line without an end, however long, is rubbish and no more', async () => {
  const endless = net.createServer((socket) => socket.on('error', () => undefined).write('9'.repeat(100_000)))
  await new Promise<void>((done) => endless.listen(0, '127.0.0.1', done))
  const news: ScaleNews[] = []
  const leave = listenToScale(`127.0.0.1:${(endless.address() as net.AddressInfo).port}`, (each) => news.push(each))
  for (let tries = 0; tries < maxTries && news.length === 0; tries++) await new Promise((done) => setTimeout(done, 40))
  leave()
  endless.close()
  expect(news).toContainEqual({ gone: 'unclear' })
})

test('the stand-in is played with sense only', async () => {
  expect((await scale.play({ grams: -1 })).body.trouble).toContain('grams is a number')
  expect((await scale.play({ fault: 'hunger' })).status).toBe(400)
})

test('a scale that is not there cannot be set to nought', async () => {
  await expect(zeroScale('127.0.0.1:1')).rejects.toThrow()
})
