import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { RouteKey } from '@tessellum/contract/api'
import type { Response } from 'express'
import { checkAnswer, sent } from './mount'

/** Sends a long list as one JSON array, part after part, so that others are answered in between. */
export async function sendParts(
  key: RouteKey,
  response: Response,
  parts: AsyncIterable<readonly unknown[]>,
): Promise<typeof sent> {
  async function* text() {
    let before = '['
    for await (const part of parts) {
      if (part.length === 0) continue
      if (response.app.get('check answers')) checkAnswer(key, part)
      yield `${before}${JSON.stringify(part).slice(1, -1)}`
      before = ','
    }
    yield before === '[' ? '[]' : ']'
  }
  // What fails before the first part is answered as any error is.
  const written = Readable.from(text())
  await new Promise<void>((ready, failed) => written.once('readable', ready).once('error', failed))
  response.type('json')
  await pipeline(written, response)
  return sent
}
