import { type Request, type Response, Router } from 'express'
import pg from 'pg'
import type { Logger } from 'pino'
import type { Database } from '../database/connect'
import { mount } from '../http/route'
import { whoseSession } from '../people/sessions'

/**
 * Tells open pages what has changed: PostgreSQL notifies every server, and each passes it on as server-sent events.
 * The connection that listens is opened again when it is lost, and pages are then told to look at everything.
 */
export function changes(url: string, people: Database, log: Logger) {
  const pages = new Map<Response, Request>()
  let client: pg.Client | undefined
  let closed = false
  let again: NodeJS.Timeout | undefined

  const tell = (subject: string) => {
    for (const page of pages.keys()) page.write(`data: ${subject}\n\n`)
  }

  /** Pages whose session has ended are told nothing more. */
  const end = (what: string) => {
    for (const [page, { sessionID, session }] of pages)
      if (what === `session ${sessionID}` || what === `person ${session?.begun?.personId}`)
        page.end('event: ended\ndata:\n\n')
  }

  async function listen(): Promise<void> {
    const next = new pg.Client({ connectionString: url, connectionTimeoutMillis: 4000 })
    const retry = () => {
      if (closed || client !== next) return
      client = undefined
      next.end().catch(() => undefined)
      again = setTimeout(start, 1500)
    }
    client = next
    next.on('error', retry)
    next.on('end', retry)
    next.on('notification', ({ channel, payload = '' }) => (channel === 'ended' ? end(payload) : tell(payload)))
    try {
      await next.connect()
      await next.query('listen changes; listen ended')
      tell('everything')
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'cannot listen for changes yet')
      retry()
    }
  }
  const start = () => void listen()

  const router = Router()
  mount(router, 'GET /api/changes', (request, response) => {
    response.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-cache', connection: 'keep-alive' })
    response.flushHeaders()
    response.write(': open\n\n')
    pages.set(response, request)
    const beat = setInterval(async () => {
      const still = await whoseSession(people, request.session).catch(() => true)
      if (still) response.write(': still here\n\n')
      else response.end('event: ended\ndata:\n\n')
    }, 25_000)
    response.on('close', () => {
      clearInterval(beat)
      pages.delete(response)
    })
    return undefined
  })

  return {
    router,
    start,
    async close() {
      closed = true
      clearTimeout(again)
      for (const page of pages.keys()) page.end()
      await client?.end().catch(() => undefined)
    },
  }
}
