import { counted } from '@tessellum/core/measure/counted'
import type pg from 'pg'
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import { HttpProblem } from '../problem'

/** Tries in a quarter of an hour: for a name from an address, for a name from anywhere, from an address, and in all. */
const tries = { 'sign-in': 10, 'sign-in-name': 60, 'sign-in-address': 120, 'sign-in-all': 1200 } as const

/** Tries are counted in the database, so that servers share them, and before the password is looked at, so that many at once are counted too. */
export function signInLimit(pool: pg.Pool) {
  const limiters = Object.entries(tries).map(
    ([keyPrefix, points]) =>
      new RateLimiterPostgres({
        storeClient: pool,
        tableName: 'sign_in_limit',
        tableCreated: true,
        keyPrefix,
        points,
        duration: 900,
      }),
  )
  const keysOf = (name: string, address: string) => [`${name} ${address}`, name, address, 'all']

  return {
    /** @throws HttpProblem when there have been too many tries */
    async count(name: string, address: string): Promise<void> {
      const keys = keysOf(name, address)
      for (const [i, limiter] of limiters.entries()) {
        try {
          await limiter.consume(keys[i] as string)
        } catch (state) {
          if (!(state instanceof RateLimiterRes)) throw state
          const minutes = Math.ceil(state.msBeforeNext / 60_000)
          throw new HttpProblem(429, 'too-many-tries', 'Too many wrong passwords.', {
            hint: `Wait ${counted(minutes, 'minute')}, then try again.`,
          })
        }
      }
    },
    /** It was right: this try, and the wrong ones before it from the same place, are not counted. */
    async right(name: string, address: string): Promise<void> {
      const keys = keysOf(name, address)
      const [closest, ...wider] = limiters
      await closest?.delete(keys[0] as string)
      for (const [i, limiter] of wider.entries()) await limiter.reward(keys[i + 1] as string)
    },
  }
}
