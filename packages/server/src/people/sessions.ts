import { randomBytes } from 'node:crypto'
import { promisify } from 'node:util'
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
import type { FoundSession, SessionCache } from './session-cache'

/** A session ends when nobody has asked anything for so long, and in any case so long after the sign-in. */
const restMs = 12 * 3600_000
export const wholeMs = 7 * 24 * 3600_000

/** A session that is in use is put off from ending, but not at every request: that would be a write for every read. */
const putOffMs = 300_000

declare module 'express-session' {
  interface SessionData {
    /** Who signed in, with which seal and when. */
    begun?: { readonly personId: number; readonly seal: string; readonly at: number }
  }
}

const inSeconds = (ms: number) => sql.raw(`interval '${ms / 1000} seconds'`)

/** A session and whose it is in one statement. */
const findSession = prepared<{ sid: string }, FoundSession>(
  'find_session',
  sql`
    select sess, ${person.id} as "personId", ${person.name}, ${person.fullName} as "fullName", ${person.roles}, ${person.seal},
      ${person.disabledAt} as "disabledAt", expire < now() + ${inSeconds(restMs - putOffMs)} as "isDue"
    from ${sessionTable} left join ${person} on ${person.id} = (sess -> 'begun' ->> 'personId')::int
    where sid = ${sql.placeholder('sid')} and expire >= now()`,
)

/** Lets it rest for the whole time from now on. */
const putOff = prepared<{ sid: string }, never>(
  'put_off_session',
  sql`update ${sessionTable} set expire = now() + ${inSeconds(restMs)} where sid = ${sql.placeholder('sid')}`,
)

/** Whose sessions are that requests have read, by what these say of who has begun them. */
const readers = new WeakMap<object, SignedIn>()

type Done = (error?: unknown) => void

interface Parts {
  readonly config: Config
  readonly secret: string
  readonly people: Database
  readonly cache: SessionCache
  readonly log: Logger
}

export function sessions({ config, secret, people, cache, log }: Parts): RequestHandler {
  // Only what it is: errors come with all that is in them.
  const noteError = (error: unknown) =>
    log.warn({ error: describeError(error) }, 'sessions could not be read or written')
  class Store extends connectPgSimple(session) {
    // Where a store has one, an answer goes out in two pieces, with a write between.
    override touch = undefined as never

    override get(sid: string, done: (error: unknown, found?: SessionData | null) => void): void {
      const read = async () => {
        const [found] = await findSession(people, { sid })
        // Nobody waits for it, and a disk that is full keeps nobody from reading.
        if (found?.isDue) putOff(people, { sid }).catch(noteError)
        return found
      }
      const answer = (found: FoundSession | undefined) => {
        const caller = found && whose(found)
        if (found?.sess.begun && caller) readers.set(found.sess.begun, caller)
        // A copy, since what is handed out is written into.
        done(null, found ? { ...found.sess } : null)
      }
      const kept = cache.get(sid)
      if (kept) answer(kept)
      else cache.read(sid, read).then(answer, done)
    }

    /** The cookie lasts as long as a session may at most; how long it may rest is kept here. */
    override set(sid: string, data: SessionData, done: Done = () => undefined): void {
      const written: Done = (error) => {
        cache.forget(sid)
        done(error)
      }
      super.set(sid, data, (error) =>
        error ? written(error) : void putOff(people, { sid }).then(() => written(), written),
      )
    }

    override destroy(sid: string, done: Done = () => undefined): void {
      super.destroy(sid, (error) => {
        cache.forget(sid)
        done(error)
      })
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
      errorLog: (...told) => noteError(told.at(-1)),
    }),
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: config.BEHIND_TLS, maxAge: wholeMs },
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
