import type { Session } from '../database/connect'
import { auditEntry } from '../schema/audit'

/**
 * Writes down what somebody did, in the transaction that does it: what is undone is not told either.
 *
 * @param what follows the person's name: "reserved 12 kits of Spring term"
 * @param page where it can be looked at
 */
export async function logActivity(tx: Session, personId: number, what: string, page = ''): Promise<void> {
  await tx.insert(auditEntry).values({ personId, what, page })
}
