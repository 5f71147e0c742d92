import { createHash, randomUUID } from 'node:crypto'
import type { IncomingMessage } from 'node:http'
import type { Request } from 'express'
import type { Idempotency } from '../context'
import { HttpProblem } from '../problem'

const bodies = new WeakMap<IncomingMessage, string>()

/** Given to body parsers: the bytes as they came are in hand only there. */
export function digestBody(request: IncomingMessage, _: unknown, bytes: Buffer): void {
  if (request.headers['idempotency-key'] !== undefined)
    bodies.set(request, createHash('sha256').update(bytes).digest('base64'))
}

export function idempotencyOf(request: Request): Idempotency {
  const what = `${request.method} ${request.originalUrl} ${bodies.get(request) ?? ''}`
  let resolve: (() => void) | undefined
  const committed = new Promise<void>((done) => {
    resolve = done
  })
  const idempotency: Idempotency = {
    digest: createHash('sha256').update(what).digest('base64'),
    isCommitted: false,
    committed,
    commit() {
      idempotency.isCommitted = true
      resolve?.()
    },
  }
  return idempotency
}

/** The key that makes a request safe to repeat; the page makes one for each thing a person does. */
export function idempotencyKeyOf(request: Request): string {
  const key = request.get('idempotency-key') ?? ''
  heed(request, key)
  if (!/^[\w-]{8,80}$/.test(key)) {
    throw new HttpProblem(400, 'no-key', 'A request that changes stock carries an idempotency-key.', {
      hint: 'Send 8 to 80 letters, digits or hyphens, new for each thing you do.',
    })
  }
  return key
}

/** The same for what changes no stock: a request without a key is a thing of its own. */
export const idempotencyKeyOrNew = (request: Request): string => {
  if (request.get('idempotency-key') !== undefined) return idempotencyKeyOf(request)
  const key = randomUUID()
  heed(request, key)
  return key
}

function heed(request: Request, key: string): void {
  const idempotency: Idempotency | undefined = request.res?.locals.idempotency
  if (idempotency) idempotency.key = key
}
