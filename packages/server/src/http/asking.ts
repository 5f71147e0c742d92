import { AsyncLocalStorage } from 'node:async_hooks'

/** For whom something is worked out, and whether they still wait for it. */
interface Asking {
  readonly personId: number
  readonly signal: AbortSignal
}

/** Of the request that is being answered; nothing outside of one. */
export const asking = new AsyncLocalStorage<Asking | undefined>()

/** What several may wait for goes on when the one who asked first has gone. */
export const forEverybody = <T>(work: () => T): T => {
  const asks = asking.getStore()
  return asks ? asking.run({ ...asks, signal: new AbortController().signal }, work) : work()
}

/** Whoever asked for it has gone. */
export class NobodyWaits extends Error {}
