import type { ScannerNews } from '@tessellum/contract/devices'
import type { NewsTopic } from '@tessellum/contract/news'
import type { ScaleNews } from '@tessellum/contract/scale'
import type { Addresses } from '../settings/device-addresses'
import { listenToLine } from './line'
import { listenToScale } from './scale'

type Tell = (news: ScaleNews | ScannerNews) => void

/** Begins to listen, and returns what ends it. */
type Listen = (tell: Tell) => () => void

/** Listens wherever a device is now; a shop that moves it begins anew. */
const listenAt =
  (addressOf: () => Promise<string>, listen: (address: string, tell: Tell) => () => void): Listen =>
  (tell) => {
    let ended = false
    let stop: () => void = () => undefined
    addressOf().then(
      (address) => {
        if (ended) return
        if (address) stop = listen(address, tell)
        else tell({ gone: 'none' })
      },
      // The shop's records cannot be reached; when they can, whoever listens is told to begin again.
      () => tell({ gone: 'unreachable' }),
    )
    return () => {
      ended = true
      stop()
    }
  }

/** What each device has to say. */
export const deviceNews = (addresses: () => Promise<Addresses>): Readonly<Record<NewsTopic, Listen>> => ({
  scale: listenAt(
    async () => (await addresses()).scale,
    (address, tell) => {
      // What has not changed is not told again.
      let last = ''
      return listenToScale(address, (news) => {
        const text = JSON.stringify(news)
        if (text !== last) tell(news)
        last = text
      })
    },
  ),
  scanner: listenAt(
    async () => (await addresses()).scanner,
    (address, tell) =>
      listenToLine(address, {
        line: (code) => tell({ code: (code ?? '').trim().slice(0, 200) }),
        gone: () => tell({ gone: 'unreachable' }),
      }),
  ),
})
