import { AsyncLocalStorage } from 'node:async_hooks'

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
