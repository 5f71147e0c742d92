import { type ScaleNews, scaleNews } from '@tessellum/contract/scale'
import { useEffect, useState } from 'react'

/** What the scale shows now; undefined until it has said anything. */
export function useScale(): ScaleNews | undefined {
  const [news, setNews] = useState<ScaleNews>()
  useEffect(() => {
    const source = new EventSource('/api/scale')
    source.onmessage = ({ data }) => {
      const read = scaleNews.safeParse(JSON.parse(String(data)))
      if (read.success) setNews(read.data)
    }
    source.onerror = () => setNews({ gone: 'unreachable' })
    return () => source.close()
  }, [])
  return news
}

export const goneWords: Readonly<Record<Extract<ScaleNews, { gone: string }>['gone'], string>> = {
  none: 'No scale is connected: type what yours shows.',
  unreachable: 'The scale does not answer: type what it shows.',
  silent: 'The scale has gone silent: type what it shows.',
  unclear: 'The scale sends what cannot be read: type what it shows.',
  over: 'There is too much on the scale.',
}
