/**
 * One stream of news for all tabs of a browser: of the six connections that a browser opens to a host, each tab's own would soon have taken them all.
 * Tabs join and say what they want to hear; the stream is opened for all that any of them wants.
 */
import { missedMs, type NewsTopic, newsTopics } from '@tessellum/contract/news'

/** What a tab is told: a subject that has changed, what a device says, that the line is broken, or that the session has ended. */
export type News =
  | { readonly about: 'changes'; readonly subject: string }
  | { readonly about: NewsTopic; readonly text: string }
  | { readonly about: 'lost' }
  | { readonly about: 'ended' }

/** Whether it is for somebody who wants these devices besides changes. */
export const isFor = (news: News, wants: (topic: NewsTopic) => boolean): boolean =>
  news.about === 'changes' || news.about === 'lost' || news.about === 'ended' || wants(news.about)

/** As much of an EventSource as is needed. */
export interface Source {
  onopen: (() => void) | null
  onerror: (() => void) | null
  readonly readyState: number
  addEventListener(type: string, heard: (event: { readonly data: string }) => void): void
  close(): void
}

const closed = 2
/** The browser opens a broken stream again by itself, unless the server has answered with an error. */
const againMs = 3000

export class OneStream {
  private readonly members = new Map<(news: News) => void, ReadonlySet<NewsTopic>>()
  /** What a device said last: who joins later is told it at once. */
  private readonly last = new Map<NewsTopic, string>()
  /** When each subject changed last: a tab that joins a stream that others have open has read before it hears. */
  private readonly changed = new Map<string, number>()
  private source: Source | undefined
  private wanted = ''
  private broken = false
  private again: ReturnType<typeof setTimeout> | undefined

  /** @param open begins a stream that tells these topics besides changes */
  constructor(private readonly open: (topics: readonly NewsTopic[]) => Source) {}

  /** Joins, or wants something else than before. */
  join(tell: (news: News) => void, topics: readonly NewsTopic[]): void {
    const before = this.members.get(tell)
    this.members.set(tell, new Set(topics))
    if (!before)
      for (const [subject, at] of this.changed) if (Date.now() - at < missedMs) tell({ about: 'changes', subject })
    for (const topic of topics) {
      const text = this.last.get(topic)
      if (text !== undefined && !before?.has(topic)) tell({ about: topic, text })
    }
    this.settle()
  }

  leave(tell: (news: News) => void): void {
    this.members.delete(tell)
    this.settle()
  }

  /** What was heard last may be old: the stream is opened again, and everything is looked at. */
  restart(): void {
    this.drop()
    this.lose()
    this.settle()
  }

  private settle(): void {
    if (this.members.size === 0) {
      this.drop()
      return
    }
    const topics = newsTopics.filter((topic) => [...this.members.values()].some((own) => own.has(topic)))
    if (this.source && this.wanted === topics.join()) return
    for (const topic of newsTopics) if (!topics.includes(topic)) this.last.delete(topic)
    this.wanted = topics.join()
    const before = this.source
    const next = this.open(topics)
    this.source = next
    // The old one is kept until the new one is open: nothing that changes in between goes unheard.
    next.onopen = () => {
      before?.close()
      if (this.broken) this.tell({ about: 'changes', subject: 'everything' })
      this.broken = false
    }
    next.onerror = () => {
      before?.close()
      if (this.source !== next) return
      this.lose()
      if (next.readyState !== closed) return
      this.source = undefined
      clearTimeout(this.again)
      this.again = setTimeout(() => this.settle(), againMs)
    }
    next.addEventListener('message', ({ data }) => this.tell({ about: 'changes', subject: data }))
    for (const topic of topics)
      next.addEventListener(topic, ({ data }) => {
        if (topic === 'scale') this.last.set(topic, data)
        this.tell({ about: topic, text: data })
      })
    next.addEventListener('ended', () => {
      if (this.source !== next) return
      // Whoever signs in next joins again.
      const all = [...this.members.keys()]
      this.members.clear()
      this.drop()
      for (const tell of all) tell({ about: 'ended' })
    })
  }

  private tell(news: News): void {
    if (news.about === 'changes') this.changed.set(news.subject, Date.now())
    for (const [tell, topics] of this.members) if (isFor(news, (topic) => topics.has(topic))) tell(news)
  }

  private lose(): void {
    this.broken = true
    this.last.clear()
    this.tell({ about: 'lost' })
  }

  private drop(): void {
    clearTimeout(this.again)
    this.source?.close()
    this.source = undefined
    this.wanted = ''
    this.last.clear()
  }
}
