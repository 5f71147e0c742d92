import type { PersonRole } from '@tessellum/contract/people'
import { asking, type Right, type RouteKey, rights, routes } from '@tessellum/contract/rights'
import type { Request, RequestHandler, Response, Router } from 'express'
import type { Database } from '../database/connect'
import type { Drawings } from '../drawings/drawings'
import type { WorkerPool } from '../workers/pool'
import { Refusal } from './refusal'

/** The person who asks. */
export interface Caller {
  readonly id: number
  readonly name: string
  readonly fullName: string
  readonly role: PersonRole
}

/** What every route may use. */
export interface Shop {
  readonly db: Database
  readonly workers: WorkerPool
  readonly drawings: Drawings
}

declare module 'express-session' {
  interface SessionData {
    caller?: Caller
  }
}

/** Routes of one subject, mounted with the right that the contract's table gives them. */
export type Handle = (request: Request, response: Response, caller: Caller) => Promise<unknown> | unknown

/**
 * Mounts a route. What its handler returns is sent as JSON; `undefined` means it has answered itself.
 * The key must stand in the contract's table, so that no route can be open by oversight; and what changes the records must have asked for the
 * request's idempotency key, so that none can be done twice by oversight.
 */
export function mount(router: Router, key: RouteKey, handle: Handle): void {
  const [method, path] = key.split(' ') as ['GET' | 'POST' | 'PUT', string]
  const needed: Right | 'open' | 'signed-in' = routes[key]
  const run: RequestHandler = async (request, response) => {
    const caller = request.session.caller
    if (needed !== 'open') {
      if (!caller)
        throw new Refusal(401, 'not-signed-in', 'You are not signed in.', {
          hint: 'Sign in and try again; nothing has been lost.',
        })
      if (needed !== 'signed-in' && !(rights[needed] as readonly PersonRole[]).includes(caller.role)) {
        throw new Refusal(403, 'not-allowed', `This is not for the ${caller.role} to do.`, {
          hint: `Ask: ${rights[needed].join(', ')}.`,
        })
      }
    }
    const result = await handle(request, response, caller as Caller)
    if (method !== 'GET' && !asking.has(key) && response.locals.keyed !== true)
      throw new Error(`${key} changes the records and has asked for no idempotency key.`)
    if (result !== undefined) response.json(result)
  }
  if (method === 'GET') router.get(path, run)
  else if (method === 'POST') router.post(path, run)
  else router.put(path, run)
}
