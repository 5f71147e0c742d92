import { randomBytes } from 'node:crypto'
import { promisify } from 'node:util'
import connectPgSimple from 'connect-pg-simple'
import { eq, sql } from 'drizzle-orm'
import type { Request, RequestHandler } from 'express'
import session, { type SessionData } from 'express-session'
import type pg from 'pg'
import type { Logger } from 'pino'
import type { Config } from '../config'
import type { SignedIn } from '../context'
import type { Database, Session } from '../database/connect'
import { describeError } from '../http/describe'
import { person, session as sessionTable } from '../schema/people'

/** A session ends when nobody has asked anything for so long, and in any case so long after the sign-in. */
const restMs = 12 * 3600_000
export const wholeMs = 7 * 24 * 3600_000

/** A session that is in use is put off from ending, but not at every request: that would be a write for every read. */
const touchMs = 300_000

declare module 'express-session' {
  interface SessionData {
    /** Who signed in, with which seal and when. */
    begun?: { readonly personId: number; readonly seal: string; readonly at: number }
  }
}

export function sessions(config: Config, secret: string, pool: pg.Pool, log: Logger): RequestHandler {
  class Store extends connectPgSimple(session) {
    private readonly touched = new Map<string, number>()

    override touch(id: string, data: SessionData, done?: () => void): void {
      const now = Date.now()
      if (now - (this.touched.get(id) ?? 0) < touchMs) {
        done?.()
        return
      }
      for (const [old, at] of this.touched) if (now - at > touchMs) this.touched.delete(old)
      this.touched.set(id, now)
      super.touch(id, data, done)
    }
  }
  return session({
    name: 'tessellum',
    secret,
    genid: () => randomBytes(24).toString('base64url'),
    store: new Store({
      pool,
      tableName: 'session',
      pruneSessionInterval: 3600,
      // It would print errors as they come, with all that is in them.
      errorLog: (...told) => log.warn({ error: describeError(told.at(-1)) }, 'sessions could not be read or written'),
    }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'strict', secure: config.BEHIND_TLS, maxAge: restMs },
  })
}

/**
 * Who a session belongs to, as the records have them now: somebody disabled, or with another role or password since, is nobody.
 *
 * @returns undefined when it has ended
 */
export async function whoseSession(db: Database, { begun }: Partial<SessionData>): Promise<SignedIn | undefined> {
  if (!begun || Date.now() - begun.at > wholeMs) return undefined
  const [found] = await db.select().from(person).where(eq(person.id, begun.personId))
  if (!found || found.disabledAt || found.seal !== begun.seal) return undefined
  const { id, name, fullName, roles } = found
  return { id, name, fullName, roles }
}

/** Whether a session is anybody's still, as the records have it now and not as it was when a request began. */
export async function sessionStands(db: Database, sid: string): Promise<boolean> {
  const [found] = await db.select({ sess: sessionTable.sess }).from(sessionTable).where(eq(sessionTable.sid, sid))
  return (await whoseSession(db, (found?.sess ?? {}) as Partial<SessionData>)) !== undefined
}

/** Finds out who asks, before anything of the request is read. */
export const whoAsks =
  (db: Database): RequestHandler =>
  async (request, response, next) => {
    if (request.session.begun) {
      const found = await whoseSession(db, request.session)
      if (found) response.locals.caller = found
      // Nobody's session from here on: a request goes on as a stranger's does.
      else await promisify<void>(request.session.regenerate.bind(request.session))()
    }
    next()
  }

/** A new session id, so that one planted before somebody signs in is worth nothing. */
export async function beginSession(
  request: Request,
  of: { readonly id: number; readonly seal: string },
): Promise<void> {
  await promisify(request.session.regenerate.bind(request.session))()
  request.session.begun = { personId: of.id, seal: of.seal, at: Date.now() }
}

/**
 * One session goes on with a person's new seal, where all their others end with the old one: in the transaction that gives the seal, so that nobody
 * finds the session without it.
 */
export const keepSession = (tx: Session, sid: string, seal: string) =>
  tx
    .update(sessionTable)
    .set({ sess: sql`jsonb_set(${sessionTable.sess}::jsonb, '{begun,seal}', to_jsonb(${seal}::text))::json` })
    .where(eq(sessionTable.sid, sid))

/** The same for the request that is being answered, which would write back what it has read. */
export function goOn(request: Request, seal: string): void {
  const { begun } = request.session
  if (begun) request.session.begun = { ...begun, seal }
}

export const endSession = (request: Request): Promise<void> =>
  promisify<void>(request.session.destroy.bind(request.session))()
