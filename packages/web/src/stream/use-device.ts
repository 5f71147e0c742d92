import type { NewsTopic } from '@tessellum/contract/news'
import type { z } from 'zod'
import { useNews } from './news'

/**
 * Listens to a device through the server.
 *
 * @param gone the line is broken, or what was heard cannot be trusted any more
 */
export function useDevice<Schema extends z.ZodType>(
  topic: NewsTopic,
  schema: Schema,
  heard: (news: z.output<Schema>) => void,
  gone: () => void,
): void {
  useNews((news) => {
    if (news.about === 'lost' || news.about === 'ended') gone()
    if (news.about !== topic) return
    const read = schema.safeParse(JSON.parse(news.text))
    if (read.success) heard(read.data)
  }, topic)
}
