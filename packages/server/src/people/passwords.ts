import { hash, verify } from '@node-rs/argon2'
import PQueue from 'p-queue'
import { HttpProblem } from '../problem'

// Argon2id at the usual memory and time cost.
const cost = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export const hashPassword = (password: string): Promise<string> => hash(password, cost)

/** Checked against when nobody of that name exists, so that the answer takes as long and tells nothing. */
const nobody = hash('nobody has this password', cost)

/** One after the other: a flood of sign-ins takes no more than one thread from everybody else. */
const queue = new PQueue({ concurrency: 1 })
const maxWaiting = 60

/** @throws HttpProblem when too many wait already */
export function passwordFits(stored: string | null | undefined, given: string): Promise<boolean> {
  if (queue.size >= maxWaiting)
    throw new HttpProblem(503, 'busy', 'Too many people are signing in at once.', { hint: 'Try again in a moment.' })
  return queue.add(async () => (await verify(stored ?? (await nobody), given)) && stored != null)
}
