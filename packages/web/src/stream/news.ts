/** What this tab hears of the shop, by whatever stream it has. */
import type { NewsTopic } from '@tessellum/contract/news'
import { useEffect, useRef } from 'react'
import { isFor, type News, OneStream } from './one-stream'
import { openSource } from './open-source'
import type { FromTab } from './stream.worker'

/** Nothing runs while the lid is closed: a longer gap between two looks at the clock means that it was. */
const lookMs = 1000
const sleptMs = 6000

type Hear = (news: News) => void
const listeners = new Map<Hear, NewsTopic | undefined>()
let send: ((message: FromTab) => void) | undefined

const hear = (news: News) => {
  if (news.about === 'ended') send = undefined
  for (const [each, own] of listeners) if (isFor(news, (topic) => topic === own)) each(news)
}

/** A worker that all tabs share, where the browser has such; else a stream of the tab's own. */
function connect(): (message: FromTab) => void {
  if (typeof SharedWorker === 'undefined') {
    const own = new OneStream(openSource)
    return (message) => {
      if ('want' in message) own.join(hear, message.want)
      else if ('leave' in message) own.leave(hear)
      else own.restart()
    }
  }
  const { port } = new SharedWorker(new URL('./stream.worker.ts', import.meta.url), { type: 'module', name: 'stream' })
  port.onmessage = ({ data }: MessageEvent<News>) => hear(data)
  return (message) => port.postMessage(message)
}

function want(): void {
  if (listeners.size === 0) {
    send?.({ leave: true })
    return
  }
  send ??= connect()
  send({ want: [...new Set([...listeners.values()].filter((topic) => topic !== undefined))] })
}

// A tab that is closed, or put aside by the browser, takes up no stream; one that comes back has missed what went on.
addEventListener('pagehide', () => send?.({ leave: true }))
addEventListener('pageshow', ({ persisted }: PageTransitionEvent) => {
  if (!persisted) return
  want()
  hear({ about: 'changes', subject: 'everything' })
})
let looked = Date.now()
setInterval(() => {
  const now = Date.now()
  if (Math.abs(now - looked) > sleptMs && listeners.size > 0) send?.({ restart: true })
  looked = now
}, lookMs)

/** Listens for as long as the page stands. @param topic a device, besides what changes at the shop */
export function useNews(heard: Hear, topic?: NewsTopic): void {
  const latest = useRef(heard)
  latest.current = heard
  useEffect(() => {
    const each: Hear = (news) => latest.current(news)
    listeners.set(each, topic)
    want()
    return () => {
      listeners.delete(each)
      want()
    }
  }, [topic])
}
