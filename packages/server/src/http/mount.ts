import { setMaxListeners } from 'node:events'
import { asking, mayDo, type Right, type RouteKey, rights, routes } from '@tessellum/contract/rights'
import type { Request, RequestHandler, Response, Router } from 'express'
import { type Caller, type Idempotency, RequestAborted, requestContext, type SignedIn } from '../context'
import { idempotencyOf } from '../idempotency/request-key'
import { HttpProblem } from '../problem'
import { describeError } from './describe'

/** Routes of one subject, mounted with the right that the contract's table gives them. */
export type Handle = (request: Request, response: Response, caller: Caller) => Promise<unknown> | unknown

/**
 * Mounts a route. What its handler returns is sent as JSON; `undefined` means it has answered itself.
 * The key must stand in the contract's table, so that no route can be open by oversight; and what changes the records must have asked for the
 * request's idempotency key, so that none can be done twice by oversight.
 *
 * A write answers for itself: once it stands in the records it is told as done, with 204 where the rest of the answer fails or takes long.
 */
export function mount(router: Router, key: RouteKey, handle: Handle): void {
  const [method, path] = key.split(' ') as ['GET' | 'POST' | 'PUT', string]
  const needed: Right | 'open' | 'signed-in' = routes[key]
  const run: RequestHandler = async (request, response) => {
    const caller: SignedIn | undefined = response.locals.caller
    const idempotency = idempotencyOf(request)
    response.locals.idempotency = idempotency
    if (needed !== 'open') {
      if (!caller)
        throw new HttpProblem(401, 'not-signed-in', 'You are not signed in.', {
          hint: 'Sign in and try again; nothing has been lost.',
        })
      if (needed !== 'signed-in' && !mayDo(caller.role, needed)) {
        throw new HttpProblem(403, 'not-allowed', 'You do not have permission to do this.', {
          hint: `Ask the ${listed(rights[needed])}.`,
        })
      }
    }
    const gone = new AbortController()
    setMaxListeners(0, gone.signal)
    response.on('close', () => gone.abort())
    // They may have hung up before it got this far.
    if (response.closed || request.socket.destroyed) gone.abort()
    const waits = { personId: caller?.id ?? 0, signal: gone.signal }
    const handled = requestContext.run(waits, async () =>
      handle(request, response, { ...(caller as SignedIn), idempotency }),
    )
    const answered = handled.catch((error: unknown) => {
      if (!idempotency.isCommitted) throw error
      noteLate(request, error)
      return untold
    })
    const result = await Promise.race([answered, late(idempotency, Number(request.app.get('answer seconds')))])
    if (method !== 'GET' && !asking.has(key) && idempotency.key === undefined && result !== untold)
      throw new Error(`${key} changes the records and has asked for no idempotency key.`)
    if (result === untold) response.status(204).end()
    else if (result !== undefined) response.json(result)
  }
  if (method === 'GET') router.get(path, run)
  else if (method === 'POST') router.post(path, run)
  else router.put(path, run)
}

/** "owner, designer or stockroom" */
const listed = (roles: readonly string[]) => new Intl.ListFormat('en-GB', { type: 'disjunction' }).format(roles)

/** What was asked for is done, and the rest of the answer failed; whoever has hung up does not miss it. */
function noteLate(request: Request, error: unknown): void {
  if (!(error instanceof RequestAborted))
    request.log.error({ error: describeError(error) }, 'done, and its answer failed')
}

const untold = Symbol('done; the rest cannot be told')

/** @param seconds how long an answer may take after what was asked for is done */
async function late({ committed }: Idempotency, seconds: number): Promise<typeof untold> {
  await committed
  await new Promise((done) => setTimeout(done, 1000 * seconds).unref())
  return untold
}
