import type { Session } from '../database/connect'
import { deed } from '../schema/audit'

/**
 * Writes down what somebody did, in the transaction that does it: what is undone is not told either.
 *
 * @param what follows the person's name: "reserved 12 kits of Spring term"
 * @param page where it can be looked at
 */
export async function record(tx: Session, personId: number, what: string, page = ''): Promise<void> {
  await tx.insert(deed).values({ personId, what, page })
}
