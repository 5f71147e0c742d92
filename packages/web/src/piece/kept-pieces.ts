/**
 * Pieces whose form this browser has computed before, kept over reloads: nobody waits twice for the same pattern. Only a saving of work: where
 * the browser keeps nothing, forms are computed again.
 */
import { createStore, delMany, entries, get, keys, set, type UseStore } from 'idb-keyval'
import { workerAddress } from '../worker/begin-worker'

interface Kept<Value> {
  readonly done: Value
  readonly keptAt: number
}

const most = 200
/** Forms that another build of the worker has computed are not those of this one. */
const keyOf = (key: string) => `${workerAddress} ${key}`

let opened: UseStore | undefined
const store = () => {
  opened ??= createStore('tessellum-pieces', 'pieces')
  return opened
}

export async function keptPiece<Value>(key: string): Promise<Value | undefined> {
  try {
    return (await get<Kept<Value>>(keyOf(key), store()))?.done
  } catch {
    // Private windows and full disks: it is computed as if it had never been.
    return undefined
  }
}

export async function keepPiece<Value>(key: string, done: Value): Promise<void> {
  try {
    await set(keyOf(key), { done, keptAt: Date.now() } satisfies Kept<Value>, store())
    if ((await keys(store())).length > most) await makeRoom()
  } catch {
    // As above.
  }
}

async function makeRoom(): Promise<void> {
  const all = await entries<string, Kept<unknown>>(store())
  const oldest = all
    .map(([key, { keptAt }]) => ({ key, keptAt: key.startsWith(workerAddress) ? keptAt : 0 }))
    .sort((a, b) => a.keptAt - b.keptAt)
    .slice(0, all.length - most / 2)
  await delMany(
    oldest.map(({ key }) => key),
    store(),
  )
}
