import type { ScannerNews } from '@tessellum/contract/devices'
import type { NewsTopic } from '@tessellum/contract/news'
import type { ScaleNews } from '@tessellum/contract/scale'
import type { Config } from '../config'
import { listenToLine } from './line'
import { listenToScale } from './scale'

/** Begins to listen, and returns what ends it. */
type Listen = (tell: (news: ScaleNews | ScannerNews) => void) => () => void

const nothing = () => undefined

/** What each device has to say. */
export const deviceNews = ({ SCALE, SCANNER }: Config): Readonly<Record<NewsTopic, Listen>> => ({
  scale(tell) {
    if (!SCALE) {
      tell({ gone: 'none' })
      return nothing
    }
    // What has not changed is not told again.
    let last = ''
    return listenToScale(SCALE, (news) => {
      const text = JSON.stringify(news)
      if (text !== last) tell(news)
      last = text
    })
  },
  scanner(tell) {
    if (!SCANNER) {
      tell({ gone: 'none' })
      return nothing
    }
    return listenToLine(SCANNER, {
      line: (code) => tell({ code: (code ?? '').trim().slice(0, 200) }),
      gone: () => tell({ gone: 'unreachable' }),
    })
  },
})
