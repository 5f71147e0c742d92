/** What a PostgreSQL error means to the person who caused it, or to whom it merely happened. */

interface DatabaseError {
  readonly code?: string
  readonly constraint?: string
}

/** drizzle wraps the driver's error; the code is on the innermost cause. */
export function innermost(error: unknown): unknown {
  let at = error
  while (at instanceof Error && at.cause instanceof Error) at = at.cause
  return at
}

const saidBy = (error: unknown): DatabaseError => (innermost(error) ?? {}) as DatabaseError

const lost = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOTFOUND',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
  '53300',
])

/** The database cannot be reached just now; the request may be tried again. */
export function isUnreachable(error: unknown): boolean {
  const { code } = saidBy(error)
  if (code !== undefined && lost.has(code)) return true
  let message = ''
  for (let at = error; at instanceof Error; at = at.cause) message += at.message
  return /timeout exceeded when trying to connect|Connection terminated|Client has encountered a connection error/.test(
    message,
  )
}

export const brokenConstraint = (error: unknown): string | undefined => saidBy(error).constraint

/** A value that no column takes. Input is checked before; what got this far is still the sender's to mend. */
export const isUnwritable = (error: unknown): boolean =>
  ['22003', '22007', '22008', '22021', '22P02', '22P03', '22P05'].includes(saidBy(error).code ?? '')

/** There is no room left to write it down. */
export const isFull = (error: unknown): boolean => ['53100', 'ENOSPC'].includes(saidBy(error).code ?? '')

/** What is needed is held by another, for longer than anybody waits. */
export const isHeld = (error: unknown): boolean => ['55P03', '57014'].includes(saidBy(error).code ?? '')

/** Two transactions each waited for what the other held, or could not be put in order. */
export const mayTryAgain = (error: unknown): boolean => ['40001', '40P01'].includes(saidBy(error).code ?? '')
