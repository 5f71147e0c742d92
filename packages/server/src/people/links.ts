/** One-time links with which somebody chooses a password: at first, and when they have forgotten it. */
import { createHash, randomBytes } from 'node:crypto'
import type { PasswordLink } from '@tessellum/contract/people'
import { eq } from 'drizzle-orm'
import { logActivity } from '../audit/log'
import type { Database } from '../database/connect'
import { HttpProblem } from '../problem'
import { person, personLink } from '../schema/people'
import { shopSettings } from '../settings/store'
import { hashPassword } from './passwords'
import { lockPerson } from './people'

const digestOf = (token: string) => createHash('sha256').update(token).digest('base64url')

/** Makes a link, in place of any that was made before. The answer is the only place where it stands in full. */
export const makeLink = (db: Database, id: number, ownerId: number): Promise<PasswordLink> =>
  db.transaction(async (tx) => {
    const { fullName, disabledAt } = await lockPerson(tx, id)
    if (disabledAt)
      throw new HttpProblem(409, 'disabled', `${fullName} is disabled.`, { hint: 'Let them in again first.' })
    const { linkDays } = (await shopSettings(tx)).access
    const token = randomBytes(32).toString('base64url')
    const expiresAt = new Date(Date.now() + linkDays * 86_400_000)
    const kept = { tokenDigest: digestOf(token), expiresAt }
    await tx
      .insert(personLink)
      .values({ personId: id, ...kept })
      .onConflictDoUpdate({ target: personLink.personId, set: kept })
    await logActivity(tx, ownerId, `made a link with which ${fullName} chooses a password`)
    // After the #, which no server and no log of one is told.
    return { path: `/welcome#${token}`, expiresAt: expiresAt.toISOString() }
  })

const worthless = () =>
  new HttpProblem(410, 'link-used', 'This link has been used already, or its time is over.', {
    hint: 'Ask the owner of the shop for a new one.',
  })

/** @throws HttpProblem when the link is worth nothing any more */
export async function whoseLink(db: Database, token: string) {
  const [found] = await db
    .select({ person, expiresAt: personLink.expiresAt })
    .from(personLink)
    .innerJoin(person, eq(person.id, personLink.personId))
    .where(eq(personLink.tokenDigest, digestOf(token)))
  if (!found || found.expiresAt.getTime() < Date.now() || found.person.disabledAt) throw worthless()
  return found.person
}

/** Gives the person of a link their password; the link is worth nothing after that, and their other sessions end. */
export async function choosePassword(db: Database, token: string, password: string) {
  const { id } = await whoseLink(db, token)
  const passwordHash = await hashPassword(password)
  return db.transaction(async (tx) => {
    await lockPerson(tx, id)
    const used = await tx
      .delete(personLink)
      .where(eq(personLink.tokenDigest, digestOf(token)))
      .returning()
    if (used.length === 0) throw worthless()
    const [now] = await tx.update(person).set({ passwordHash }).where(eq(person.id, id)).returning()
    await logActivity(tx, id, 'chose a password by a link')
    return now as typeof person.$inferSelect
  })
}
