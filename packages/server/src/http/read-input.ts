import type { z } from 'zod'
import { HttpProblem } from '../problem'

/** Reads input by its schema, or says which part of it is wrong. */
export function readInput<T extends z.ZodType>(schema: T, input: unknown): z.output<T> {
  const read = schema.safeParse(input ?? {})
  if (read.success) {
    const path = unwritable(read.data)
    if (path === undefined) return read.data
    throw new HttpProblem(400, 'bad-input', 'This has a character that cannot be written down.', {
      path: path.join('.'),
      hint: 'Type it again instead of pasting it.',
    })
  }
  const [issue] = read.error.issues
  throw new HttpProblem(400, 'bad-input', issue?.message ?? 'The request cannot be read.', {
    path: issue?.path.join('.') ?? '',
  })
}

/** The path to a text that no record can hold: with a NUL in it, or half a character. */
function unwritable(value: unknown): string[] | undefined {
  if (typeof value === 'string') return value.includes('\0') || !value.isWellFormed() ? [] : undefined
  if (typeof value !== 'object' || value === null) return undefined
  for (const [name, each] of Object.entries(value)) {
    const path = unwritable(each)
    if (path) return [name, ...path]
  }
  return undefined
}
