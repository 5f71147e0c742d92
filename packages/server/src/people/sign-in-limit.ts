import type pg from 'pg'
import { RateLimiterPostgres } from 'rate-limiter-flexible'
import { Refusal } from '../http/refusal'

/** Ten wrong tries in a quarter of an hour for a name from an address; counted in the database, so that servers share it. */
export function signInLimit(pool: pg.Pool) {
  const limiter = new RateLimiterPostgres({
    storeClient: pool,
    tableName: 'sign_in_limit',
    tableCreated: true,
    keyPrefix: 'sign-in',
    points: 10,
    duration: 900,
  })
  return {
    async check(key: string): Promise<void> {
      const spent = await limiter.get(key)
      if (spent && spent.remainingPoints <= 0) {
        const minutes = Math.ceil(spent.msBeforeNext / 60_000)
        throw new Refusal(429, 'too-many-tries', 'Too many wrong passwords.', {
          hint: `Wait ${minutes} minute${minutes === 1 ? '' : 's'}, then try again.`,
        })
      }
    },
    async wrong(key: string): Promise<void> {
      // Beyond the limit the limiter rejects with its state; the next check then refuses.
      await limiter.consume(key).catch((state: unknown) => {
        if (state instanceof Error) throw state
      })
    },
    right: (key: string) => limiter.delete(key),
  }
}
