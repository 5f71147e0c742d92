import { missedMs } from '@tessellum/contract/news'
import { mayDo } from '@tessellum/contract/rights'
import { type Request, type Response, Router } from 'express'
import pg from 'pg'
import type { Logger } from 'pino'
import type { Database } from '../database/connect'
import type { Revision } from '../database/revision'
import type { deviceNews } from '../devices/news'
import { mount, sent } from '../http/mount'
import type { SessionCache } from '../people/session-cache'
import { sessionStands } from '../people/sessions'
import { HttpProblem } from '../problem'

/** What plans are made from. */
const planned: ReadonlySet<string> = new Set([
  'stock',
  'batches',
  'buy-list',
  'packing',
  'colourways',
  'patterns',
  'settings',
])

const everything = 'everything'

/** A page that is told what changes. */
interface Page {
  readonly request: Request
  /** Its devices may be somewhere else now. */
  readonly listenAgain: () => void
  /** Done before it is told nothing more. */
  readonly leave: () => void
}

/**
 * Tells open pages what has changed: PostgreSQL notifies every server, and each passes it on as server-sent events.
 * The connection that listens is opened again when it is lost, and pages are then told to look at everything.
 */
export function changes(
  url: string,
  people: Database,
  devices: ReturnType<typeof deviceNews>,
  revision: Revision,
  sessions: SessionCache,
  log: Logger,
) {
  const pages = new Map<Response, Page>()
  /** When each subject changed last: whoever begins to listen is told what they may have missed. */
  const changed = new Map<string, number>()
  let client: pg.Client | undefined
  /** What went on meanwhile was not heard. */
  let lost = false
  let closed = false
  let again: NodeJS.Timeout | undefined

  const tell = (subject: string) => {
    if (planned.has(subject)) revision.bump()
    if (subject === 'settings') revision.bumpSettings()
    if (subject !== everything) changed.set(subject, Date.now())
    for (const [page, { listenAgain }] of pages) {
      page.write(`data: ${subject}\n\n`)
      if (subject === 'settings' || subject === everything) listenAgain()
    }
  }

  const endPage = (page: Response) => {
    pages.get(page)?.leave()
    if (!page.writableEnded) page.end('event: ended\ndata:\n\n')
  }
  /** Where it cannot be found out, it goes on. */
  const stands = (sessionID: string) => sessionStands(people, sessionID).catch(() => true)

  /** Pages whose session has ended are told nothing more; one that a person has kept goes on. */
  const end = async (what: string) => {
    for (const [page, { request }] of [...pages]) {
      const { sessionID, session } = request
      if (what === `session ${sessionID}`) endPage(page)
      else if (what === `person ${session?.begun?.personId}` && !(await stands(sessionID))) endPage(page)
    }
  }

  /** What is told over each channel. */
  const hear: Readonly<Record<string, (payload: string) => void>> = {
    changes: tell,
    ended: (what) => void end(what),
    sessions: (sid) => (sid ? sessions.forget(sid) : sessions.forgetAll()),
  }

  async function listen(): Promise<void> {
    const next = new pg.Client({ connectionString: url, connectionTimeoutMillis: 4000 })
    const retry = () => {
      if (closed || client !== next) return
      client = undefined
      lost = true
      revision.listen(false)
      sessions.listen(false)
      next.end().catch(() => undefined)
      again = setTimeout(start, 1500)
    }
    client = next
    next.on('error', retry)
    next.on('end', retry)
    next.on('notification', ({ channel, payload = '' }) => hear[channel]?.(payload))
    try {
      await next.connect()
      await next.query(
        Object.keys(hear)
          .map((channel) => `listen ${channel}`)
          .join(';'),
      )
      revision.listen(true)
      sessions.listen(true)
      tell(everything)
      if (lost) changed.set(everything, Date.now())
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'cannot listen for changes yet')
      retry()
    }
  }
  const start = () => void listen()

  const router = Router()
  mount(router, 'GET /api/changes', ({ query: { also }, request, response, caller }) => {
    if (also.length > 0 && !mayDo(caller.roles, 'batches.pack'))
      throw new HttpProblem(403, 'not-allowed', 'The devices at the packing bench are for those who pack.')
    response.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-cache', connection: 'keep-alive' })
    response.flushHeaders()
    response.write(': open\n\n')
    for (const [subject, at] of changed) if (Date.now() - at < missedMs) response.write(`data: ${subject}\n\n`)
    // Its other end may be gone at any time.
    response.on('error', (error) => log.debug({ error: error.message }, 'a page was not told'))
    const beat = setInterval(async () => {
      if (!(await stands(request.sessionID))) endPage(response)
      else if (!response.writableEnded) response.write(': still here\n\n')
    }, 25_000)
    const listen = () =>
      also.map((topic) =>
        devices[topic]((news) => response.write(`event: ${topic}\ndata: ${JSON.stringify(news)}\n\n`)),
      )
    let stops = listen()
    const stop = () => {
      for (const each of stops) each()
    }
    const listenAgain = () => {
      stop()
      stops = listen()
    }
    const leave = () => {
      stop()
      clearInterval(beat)
      pages.delete(response)
    }
    pages.set(response, { request, listenAgain, leave })
    response.on('close', leave)
    // The page may have gone while it was found out whose it is.
    if (response.closed) leave()
    return sent
  })

  return {
    router,
    start,
    async close() {
      closed = true
      clearTimeout(again)
      for (const [page, { leave }] of [...pages]) {
        leave()
        page.end()
      }
      await client?.end().catch(() => undefined)
    },
  }
}
