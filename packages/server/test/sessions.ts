import type { Caller } from './shop'

/**
 * Waits until somebody is signed out whose session was ended otherwise than through the server that they ask: it knows once PostgreSQL has told it,
 * which is long before it would look by itself.
 */
export async function isOut(caller: Caller): Promise<void> {
  const seen: number[] = []
  while (seen.at(-1) !== 401 && seen.length < 40) {
    seen.push((await caller.ask('GET', '/me')).status)
    await new Promise((done) => setTimeout(done, 20))
  }
  expect(seen.at(-1)).toBe(401)
}
