/**
 * Pieces whose form this browser has computed before, kept over reloads: nobody waits twice for the same pattern. Only a saving of work: where
 * the browser keeps nothing, forms are computed again.
 */
import { createStore, delMany, entries, get, keys, set, type UseStore } from 'idb-keyval'

interface Kept<Value> {
  readonly done: Value
  readonly keptAt: number
}

const most = 200
/** The worker's address changes with every build of it: forms of another build are not those of this one. */
const build = new URL('./form.worker.ts', import.meta.url).href

let opened: UseStore | undefined
const store = () => {
  opened ??= createStore('tessellum-pieces', 'pieces')
  return opened
}

export async function keptPiece<Value>(key: string): Promise<Value | undefined> {
  try {
    return (await get<Kept<Value>>(build + key, store()))?.done
  } catch {
    // Private windows and full disks: it is computed as if it had never been.
    return undefined
  }
}

export async function keepPiece<Value>(key: string, done: Value): Promise<void> {
  try {
    await set(build + key, { done, keptAt: Date.now() } satisfies Kept<Value>, store())
    if ((await keys(store())).length > most) await makeRoom()
  } catch {
    // As above.
  }
}

async function makeRoom(): Promise<void> {
  const all = await entries<string, Kept<unknown>>(store())
  const oldest = all
    .map(([key, { keptAt }]) => ({ key, keptAt: key.startsWith(build) ? keptAt : 0 }))
    .sort((a, b) => a.keptAt - b.keptAt)
    .slice(0, all.length - most / 2)
  await delMany(
    oldest.map(({ key }) => key),
    store(),
  )
}
