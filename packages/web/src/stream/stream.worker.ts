/** Shared by all tabs of the browser: holds the one stream, and tells each tab what it wants to hear. */
import type { NewsTopic } from '@tessellum/contract/news'
import { type News, OneStream } from './one-stream'
import { openSource } from './open-source'

export type FromTab = { readonly want: readonly NewsTopic[] } | { readonly leave: true } | { readonly restart: true }

const stream = new OneStream(openSource)

;(globalThis as unknown as SharedWorkerGlobalScope).onconnect = ({ ports: [port] }) => {
  if (!port) return
  const tell = (news: News) => port.postMessage(news)
  port.onmessage = ({ data }: MessageEvent<FromTab>) => {
    if ('want' in data) stream.join(tell, data.want)
    else if ('leave' in data) stream.leave(tell)
    else stream.restart()
  }
}

interface SharedWorkerGlobalScope {
  onconnect: (event: MessageEvent) => void
}
