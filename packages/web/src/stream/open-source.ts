import type { NewsTopic } from '@tessellum/contract/news'
import type { Source } from './one-stream'

export const openSource = (topics: readonly NewsTopic[]): Source =>
  new EventSource(`/api/changes${topics.length > 0 ? `?also=${topics.join()}` : ''}`) as Source
