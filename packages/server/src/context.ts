import { AsyncLocalStorage } from 'node:async_hooks'
import type { PersonRole } from '@tessellum/contract/roles'

/** For whom something is worked out, and whether they still wait for it. */
interface RequestContext {
  readonly personId: number
  readonly signal: AbortSignal
}

/** Of the request that is being answered; nothing outside of one. */
export const requestContext = new AsyncLocalStorage<RequestContext | undefined>()

/** What several may wait for goes on when the one who asked first has gone. */
export const detached = <T>(work: () => T): T => {
  const asks = requestContext.getStore()
  return asks ? requestContext.run({ ...asks, signal: new AbortController().signal }, work) : work()
}

/** Whoever asked for it has gone. */
export class RequestAborted extends Error {}

/** Who is signed in. */
export interface SignedIn {
  readonly id: number
  readonly name: string
  readonly fullName: string
  readonly roles: readonly PersonRole[]
}

/** The person who asks, and what they ask for. */
export interface Caller extends SignedIn {
  readonly idempotency: Idempotency
}

/** Who does something, and the key of the request: written down with every move. */
export interface Actor {
  readonly personId: number
  readonly idempotencyKey: string
}

/** The request as something that is done once: what it asks for, and whether that has been done. */
export interface Idempotency {
  /** Of its method, address and body: a key goes with these. */
  readonly digest: string
  /** Its idempotency key; empty where it carries none. */
  readonly key: string
  /** Called when its transaction stands in the records. */
  readonly commit: () => void
  readonly committed: Promise<void>
  isCommitted: boolean
}
