import { missedMs, type NewsTopic } from '@tessellum/contract/news'
import { type News, OneStream, type Source } from '../src/stream/one-stream'

/** A stream that is played by the test. */
class Played implements Source {
  onopen: (() => void) | null = null
  onerror: (() => void) | null = null
  readyState = 0
  private readonly heard = new Map<string, (event: { readonly data: string }) => void>()

  constructor(readonly topics: readonly NewsTopic[]) {}

  addEventListener(type: string, heard: (event: { readonly data: string }) => void): void {
    this.heard.set(type, heard)
  }
  close(): void {
    this.readyState = 2
  }
  opens(): void {
    this.readyState = 1
    this.onopen?.()
  }
  /** The line breaks; the browser tries again by itself, unless the server refused. */
  breaks(refused = false): void {
    this.readyState = refused ? 2 : 0
    this.onerror?.()
  }
  says(type: string, data: string): void {
    if (this.readyState !== 2) this.heard.get(type)?.({ data })
  }
}

let sources: Played[]
let stream: OneStream
beforeEach(() => {
  jest.useFakeTimers()
  sources = []
  stream = new OneStream((topics) => {
    const source = new Played(topics)
    sources.push(source)
    return source
  })
})
afterEach(() => jest.useRealTimers())

const last = () => sources.at(-1) as Played
const isOpen = () => sources.filter(({ readyState }) => readyState !== 2).length
function tab(): { heard: string[]; tell: (news: News) => void } {
  const heard: string[] = []
  const tell = (news: News) =>
    heard.push('subject' in news ? news.subject : 'text' in news ? `${news.about} ${news.text}` : news.about)
  return { heard, tell }
}

test('all tabs share one stream, opened for all that any of them wants, and closed when nobody listens', () => {
  const [a, b] = [tab(), tab()]
  stream.join(a.tell, [])
  last().opens()
  stream.join(b.tell, ['scale'])
  last().opens()
  expect([isOpen(), last().topics]).toEqual([1, ['scale']])
  last().says('message', 'stock')
  last().says('scale', '{"mg":5}')
  expect([a.heard, b.heard]).toEqual([['stock'], ['stock', 'scale {"mg":5}']])
  stream.leave(b.tell)
  last().opens()
  expect(last().topics).toEqual([])
  stream.leave(a.tell)
  expect(isOpen()).toBe(0)
})

test('while another stream is opened the old one goes on telling: nothing is missed, and nothing told twice', () => {
  const a = tab()
  stream.join(a.tell, [])
  const [old] = sources as [Played]
  old.opens()
  stream.join(a.tell, ['scanner'])
  old.says('message', 'before')
  last().opens()
  old.says('message', 'after')
  last().says('message', 'after')
  expect(a.heard).toEqual(['before', 'after'])
})

test('a tab that joins is told what has just changed, since it read before it heard; one that wants something else is not told twice', () => {
  const [a, b, c] = [tab(), tab(), tab()]
  stream.join(a.tell, [])
  last().opens()
  last().says('message', 'stock')
  last().says('message', 'stock')
  stream.join(b.tell, [])
  stream.join(b.tell, ['scale'])
  expect([a.heard, b.heard]).toEqual([['stock', 'stock'], ['stock']])
  jest.advanceTimersByTime(missedMs)
  stream.join(c.tell, [])
  expect(c.heard).toEqual([])
})

test('who joins later is told at once what the scale shows, but not what was scanned before', () => {
  const [a, b] = [tab(), tab()]
  stream.join(a.tell, ['scale', 'scanner'])
  last().opens()
  last().says('scale', '{"mg":7}')
  last().says('scanner', '{"code":"TSL-1"}')
  stream.join(b.tell, ['scale', 'scanner'])
  expect(b.heard).toEqual(['scale {"mg":7}'])
})

test('a broken line is told, and everything is looked at when it is mended; refused by the server it is tried again later', () => {
  const a = tab()
  stream.join(a.tell, ['scale'])
  last().opens()
  last().says('scale', '{"mg":7}')
  last().breaks()
  last().opens()
  expect(a.heard).toEqual(['scale {"mg":7}', 'lost', 'everything'])
  last().breaks(true)
  expect([isOpen(), sources.length]).toEqual([0, 1])
  jest.advanceTimersByTime(3000)
  last().opens()
  expect([isOpen(), sources.length, a.heard.slice(-2)]).toEqual([1, 2, ['lost', 'everything']])
})

test('when the session has ended all are told, and nothing is opened until somebody joins again', () => {
  const [a, b] = [tab(), tab()]
  stream.join(a.tell, [])
  stream.join(b.tell, [])
  last().opens()
  last().says('ended', '')
  expect([a.heard, b.heard, isOpen()]).toEqual([['ended'], ['ended'], 0])
  jest.advanceTimersByTime(60_000)
  expect(sources.length).toBe(1)
  stream.join(a.tell, [])
  expect(isOpen()).toBe(1)
})
