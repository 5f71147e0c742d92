import { innermost } from '../database/errors'

/**
 * An error for the log. Of a statement that failed only what the database said of it: its text and its parameters are the shop's business, and
 * may be a whole pattern long.
 */
export function describeError(error: unknown): Readonly<Record<string, unknown>> {
  const inner = innermost(error)
  if (!(inner instanceof Error)) return { message: String(inner).slice(0, 300) }
  const { code, constraint } = inner as { readonly code?: string; readonly constraint?: string }
  // Where it came from is known by the outermost.
  const [, ...frames] = (error instanceof Error ? (error.stack ?? '') : '').split(/\n(?= {4}at )/)
  return {
    name: inner.name,
    message: inner.message.slice(0, 300),
    ...(code === undefined ? {} : { code }),
    ...(constraint === undefined ? {} : { constraint }),
    at: frames.slice(0, 12).map((each) => each.trim().slice(0, 300)),
  }
}
