import { createHash } from 'node:crypto'
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

/** @param onCommit called when what is asked for stands in the records */
export function idempotencyOf(request: Request, onCommit: () => void): Idempotency {
  let resolve: (() => void) | undefined
  const committed = new Promise<void>((done) => {
    resolve = done
  })
  const idempotency: Idempotency = {
    key: request.get('idempotency-key') ?? '',
    // Asked for by what writes only.
    get digest() {
      const what = `${request.method} ${request.originalUrl} ${bodies.get(request) ?? ''}`
      return createHash('sha256').update(what).digest('base64')
    },
    isCommitted: false,
    committed,
    commit() {
      idempotency.isCommitted = true
      onCommit()
      resolve?.()
    },
  }
  return idempotency
}

/** @throws HttpProblem when a request that writes into the records carries no key */
export function demandKey({ key }: Idempotency): void {
  if (!/^[\w-]{8,80}$/.test(key)) {
    throw new HttpProblem(400, 'no-key', 'A request that changes the records carries an idempotency-key.', {
      hint: 'Send 8 to 80 letters, digits or hyphens, new for each thing you do.',
    })
  }
}
