import { createHash } from 'node:crypto'
import type { IncomingMessage } from 'node:http'
import type { Request } from 'express'

/** The request as something that is done once: what it asks for, and whether that has been done. */
export interface Idempotency {
  /** Of its method, address and body: a key goes with these. */
  readonly digest: string
  /** Its idempotency key, once the handler has read it. */
  key?: string
  /** Called when its transaction stands in the records. */
  readonly commit: () => void
  readonly committed: Promise<void>
  isCommitted: boolean
}

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
