import { randomBytes } from 'node:crypto'
import { eq } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { shopSecret } from '../schema/people'

/** A secret of the shop's, made by whichever server asks for it first. */
export async function secretOf(db: Database, name: 'session'): Promise<string> {
  await db
    .insert(shopSecret)
    .values({ name, value: randomBytes(32).toString('base64url') })
    .onConflictDoNothing()
  const [kept] = await db.select().from(shopSecret).where(eq(shopSecret.name, name))
  if (!kept) throw new Error(`The shop has no secret "${name}".`)
  return kept.value
}
