import { newsTopics } from './news'
import { z } from './zod'

/** As in "?also=scale,scanner". */
export const newsWanted = z.object({
  also: z
    .string()
    .max(60)
    .default('')
    .transform((text) => text.split(',').filter(Boolean))
    .pipe(z.array(z.enum(newsTopics, 'Ask for scale, scanner or both.'))),
})
