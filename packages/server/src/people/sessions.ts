import { randomBytes } from 'node:crypto'
import { promisify } from 'node:util'
import type { PersonRole } from '@tessellum/contract/people'
import connectPgSimple from 'connect-pg-simple'
import { eq, sql } from 'drizzle-orm'
import type { Request, RequestHandler } from 'express'
import session, { type SessionData } from 'express-session'
import type { Logger } from 'pino'
import type { Config } from '../config'
import type { SignedIn } from '../context'
import type { Database, Session } from '../database/connect'
import { prepared } from '../database/prepared'
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

interface FoundSession {
  readonly sess: SessionData
  /** Of whom it says that it is theirs, if there is such a person. */
  readonly personId: number | null
  readonly name: string
  readonly fullName: string
  readonly roles: PersonRole[]
  readonly seal: string
  readonly disabledAt: Date | null
}

/** A session and whose it is in one statement: it is asked at every request. */
const findSession = prepared<{ sid: string }, FoundSession>(
  'find_session',
  sql`
    select sess, ${person.id} as "personId", ${person.name}, ${person.fullName} as "fullName", ${person.roles}, ${person.seal},
      ${person.disabledAt} as "disabledAt"
    from ${sessionTable} left join ${person} on ${person.id} = (sess -> 'begun' ->> 'personId')::int
    where sid = ${sql.placeholder('sid')} and expire >= now()`,
)

/** Whose sessions are that requests have read, by what these say of who has begun them. */
const readers = new WeakMap<object, SignedIn>()

export function sessions(config: Config, secret: string, people: Database, log: Logger): RequestHandler {
  class Store extends connectPgSimple(session) {
    private readonly touched = new Map<string, number>()

    override get(sid: string, done: (error: unknown, found?: SessionData | null) => void): void {
      findSession(people, { sid }).then(([found]) => {
        const caller = found && whose(found)
        if (found?.sess.begun && caller) readers.set(found.sess.begun, caller)
        done(null, found?.sess ?? null)
      }, done)
    }

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
      pool: people.$client,
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
function whose({ sess: { begun }, personId: id, name, fullName, roles, seal, disabledAt }: FoundSession) {
  const hasEnded = !begun || Date.now() - begun.at > wholeMs || id === null || disabledAt || seal !== begun.seal
  return hasEnded ? undefined : { id, name, fullName, roles }
}

/** Whether a session is anybody's still, as the records have it now and not as it was when a request began. */
export async function sessionStands(people: Database, sid: string): Promise<boolean> {
  const [found] = await findSession(people, { sid })
  return found !== undefined && whose(found) !== undefined
}

/** Finds out who asks, before anything of the request is read. */
export const whoAsks: RequestHandler = async (request, response, next) => {
  const { begun } = request.session
  if (begun) {
    const found = readers.get(begun)
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
