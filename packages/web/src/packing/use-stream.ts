import { useEffect, useRef } from 'react'
import type { z } from 'zod'

/** Nothing runs while the lid is closed: a longer gap between two looks at the clock means that it was. */
const lookMs = 1000
const sleptMs = 6000

/**
 * Listens to a device through the server. After the machine has slept it listens anew, since what it heard last may be hours old.
 *
 * @param gone the line is broken, or what was heard cannot be trusted any more
 */
export function useStream<Schema extends z.ZodType>(
  path: string,
  news: Schema,
  heard: (news: z.output<Schema>) => void,
  gone: () => void,
): void {
  const tell = useRef({ heard, gone })
  tell.current = { heard, gone }
  useEffect(() => {
    let source: EventSource
    const listen = () => {
      source = new EventSource(path)
      source.onmessage = ({ data }) => {
        const read = news.safeParse(JSON.parse(String(data)))
        if (read.success) tell.current.heard(read.data)
      }
      source.onerror = () => tell.current.gone()
    }
    listen()
    let looked = Date.now()
    const clock = setInterval(() => {
      const now = Date.now()
      if (Math.abs(now - looked) > sleptMs) {
        source.close()
        tell.current.gone()
        listen()
      }
      looked = now
    }, lookMs)
    return () => {
      clearInterval(clock)
      source.close()
    }
  }, [path, news])
}
