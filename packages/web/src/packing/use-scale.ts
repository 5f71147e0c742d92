import { type ScaleNews, scaleNews } from '@tessellum/contract/scale'
import { useState } from 'react'
import { useDevice } from '../stream/use-device'

/** What the scale shows now; undefined until it has said anything. */
export function useScale(): ScaleNews | undefined {
  const [news, setNews] = useState<ScaleNews>()
  useDevice('scale', scaleNews, setNews, () => setNews({ gone: 'unreachable' }))
  return news
}

export const goneWords: Readonly<Record<Extract<ScaleNews, { gone: string }>['gone'], string>> = {
  none: 'No scale is connected: type what yours shows.',
  unreachable: 'The scale does not answer: type what it shows.',
  silent: 'The scale has gone silent: type what it shows.',
  unclear: 'The scale sends what cannot be read: type what it shows.',
  over: 'There is too much on the scale.',
}
