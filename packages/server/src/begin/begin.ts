/** An empty shop gets its first owner, and what it settles before anything else. */
import { createHash, timingSafeEqual } from 'node:crypto'
import type { beginShop } from '@tessellum/contract/settings'
import { titleOf } from '@tessellum/core/notation/title'
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Database, Session } from '../database/connect'
import { hashPassword } from '../people/passwords'
import { HttpProblem } from '../problem'
import { pattern } from '../schema/patterns'
import { person } from '../schema/people'
import { saveSettings } from '../settings/store'

/** Two patterns to learn with: a pendant round a stone, in sizes, and a rope. */
const examples = import.meta.glob<string>('../../../../demo/patterns/{sluice-rope,windlass-pendant}.tess', {
  query: '?raw',
  import: 'default',
  eager: true,
})

export async function isEmpty(db: Session): Promise<boolean> {
  const found = await db.select({ id: person.id }).from(person).limit(1)
  return found.length === 0
}

const digest = (text: string) => createHash('sha256').update(text).digest()

/**
 * @param key what the start command has printed into the address
 * @returns the owner
 * @throws HttpProblem where the address is not that one, or the shop has been begun
 */
export async function begin(
  db: Database,
  { token, owner: { password, ...owner }, settings, examples: wanted }: z.output<typeof beginShop>,
  key: string,
) {
  if (key === '' || !timingSafeEqual(digest(token), digest(key)))
    throw new HttpProblem(403, 'not-allowed', 'This is not the address that the start command has printed.', {
      hint: 'Copy it whole, with what stands behind the #.',
    })
  const passwordHash = await hashPassword(password)
  return db.transaction(async (tx) => {
    // Of two who begin at once, the second finds the first.
    await tx.execute(sql`lock table ${person} in exclusive mode`)
    if (!(await isEmpty(tx)))
      throw new HttpProblem(409, 'begun', 'This shop has been begun already.', { hint: 'Sign in.' })
    const [made] = await tx
      .insert(person)
      .values({ ...owner, roles: ['owner'], passwordHash })
      .returning()
    const owned = made as typeof person.$inferSelect
    await saveSettings(tx, settings)
    if (wanted)
      await tx
        .insert(pattern)
        .values(Object.values(examples).map((source) => ({ title: titleOf(source), source, savedBy: owned.id })))
    await logActivity(tx, owned.id, 'began the shop', '/settings')
    return owned
  })
}
