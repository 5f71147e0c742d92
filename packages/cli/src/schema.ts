import { patternFile } from '@tessellum/contract/pattern-file'
import { z } from 'zod'

/** `schema`: the JSON Schema of a pattern file, as docs/formats has it. */
export const schema = (): string => `${JSON.stringify(z.toJSONSchema(patternFile, { io: 'input' }), null, 2)}\n`
