import { once } from 'node:events'
import { setImmediate as turn } from 'node:timers/promises'
import type { Response } from 'express'

/** Sends a long list as one JSON array, part after part, so that others are answered in between. */
export async function sendParts(response: Response, parts: AsyncIterable<readonly unknown[]>): Promise<undefined> {
  let before = '['
  for await (const part of parts) {
    if (response.destroyed) return undefined
    if (part.length === 0) continue
    if (!response.headersSent) response.type('json')
    const room = response.write(`${before}${JSON.stringify(part).slice(1, -1)}`)
    before = ','
    if (!room) await Promise.race([once(response, 'drain'), once(response, 'close')])
    await turn()
  }
  if (!response.headersSent) response.type('json')
  response.end(before === '[' ? '[]' : ']')
  return undefined
}
