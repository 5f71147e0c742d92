import { hash, verify } from '@node-rs/argon2'

// Argon2id at the usual memory and time cost.
const cost = { memoryCost: 19_456, timeCost: 2, parallelism: 1 }

export const hashPassword = (password: string): Promise<string> => hash(password, cost)

/** Checked against when nobody of that name exists, so that the answer takes as long and tells nothing. */
const nobody = hash('nobody has this password', cost)

export const passwordFits = async (stored: string | undefined, given: string): Promise<boolean> =>
  (await verify(stored ?? (await nobody), given)) && stored !== undefined
