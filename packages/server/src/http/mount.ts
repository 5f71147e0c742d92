import { setMaxListeners } from 'node:events'
import { isDeepStrictEqual } from 'node:util'
import {
  type Answer,
  type Body,
  isWrite,
  type Params,
  paramsOf,
  type Query,
  type RouteKey,
  routeOf,
  type WriteKey,
} from '@tessellum/contract/api'
import { mayDo, type Right, rights } from '@tessellum/contract/rights'
import type { Request, RequestHandler, Response, Router } from 'express'
import type { Logger } from 'pino'
import { type Caller, type Idempotency, RequestAborted, requestContext, type SignedIn } from '../context'
import { demandKey, idempotencyOf } from '../idempotency/request-key'
import { HttpProblem, nothingThere } from '../problem'
import { describeError } from './describe'
import { timeAnswer } from './metrics'
import { readInput } from './read-input'
import { sendJson } from './send-json'

/** What a route is asked, read by its schemas. */
interface Asked<Key extends RouteKey> {
  readonly params: Params<Key>
  readonly query: Query<Key>
  readonly body: Body<Key>
  /** Of what writes, with the request's idempotency. Whoever asks an open route need not be anybody. */
  readonly caller: Key extends WriteKey ? Caller : SignedIn
  readonly request: Request
  readonly response: Response
}

/** Returned by a handler that has answered by itself: with a file, a stream, or a list in parts. */
export const sent = { answered: 'by itself' } as const
type Sent = typeof sent

type Given<Key extends RouteKey> = Answer<Key> extends undefined ? Sent : Answer<Key> | Sent

export type Handler<Key extends RouteKey> = (asked: Asked<Key>) => Given<Key> | Promise<Given<Key>>

/**
 * Mounts a route of the contract's table: with its right, so that none can be open by oversight; with what it takes read by its schemas; and, where it
 * writes into the records, with the request's idempotency key, so that nothing can be done twice by oversight.
 *
 * A write answers for itself: once it stands in the records it is told as done, however often it is sent, with 204 where the rest of the answer fails or
 * takes long.
 */
export function mount<Key extends RouteKey>(router: Router, key: Key, handle: Handler<Key>): void {
  const [method, path] = key.split(' ') as ['GET' | 'POST' | 'PUT', string]
  const route = routeOf(key)
  const params = paramsOf(key)
  const run: RequestHandler = async (request, response) => {
    timeAnswer(key, response)
    const caller: SignedIn | undefined = response.locals.caller
    demandRight(route.right, caller)
    const read = params.safeParse(request.params)
    if (!read.success) throw nothingThere()
    const query = route.query && readInput(route.query, request.query)
    const body = route.body && readInput(route.body, request.body)
    const idempotency = idempotencyOf(request, request.app.get('on commit'))
    if (isWrite(key)) demandKey(idempotency)
    const gone = new AbortController()
    setMaxListeners(0, gone.signal)
    response.on('close', () => response.writableFinished || gone.abort())
    // They may have hung up before it got this far.
    if (response.closed || request.socket.destroyed) gone.abort()
    const asked = { params: read.data, query, body, caller: { ...caller, idempotency }, request, response }
    const handled = requestContext.run({ personId: caller?.id ?? 0, signal: gone.signal }, async () =>
      handle(asked as unknown as Asked<Key>),
    )
    const answered = handled.catch(async (error: unknown) => {
      // Sent again, it may be refused for what has come of it since, or what others have done: done it is all the same.
      if (!idempotency.isCommitted && isWrite(key) && (await request.app.get('was done')(asked.caller)))
        idempotency.commit()
      if (!idempotency.isCommitted) throw error
      noteLate(request, error)
      return untold
    })
    const result = await Promise.race([answered, late(idempotency, Number(request.app.get('answer seconds')))])
    if (isWrite(key) && !idempotency.isCommitted)
      throw new Error(`${key} writes into the records, and has not been done once for its key.`)
    if (result === untold) response.status(204).end()
    else if (result !== sent) {
      if (request.app.get('check answers')) checkAnswer(key, result)
      sendJson(request, response, result)
    }
  }
  if (method === 'GET') router.get(path, run)
  else if (method === 'POST') router.post(path, run)
  else router.put(path, run)
}

function demandRight(right: Right | 'open' | 'signed-in', caller: SignedIn | undefined): void {
  if (right === 'open') return
  if (!caller)
    throw new HttpProblem(401, 'not-signed-in', 'You are not signed in.', {
      hint: 'Sign in and try again; nothing has been lost.',
    })
  if (right !== 'signed-in' && !mayDo(caller.roles, right)) {
    throw new HttpProblem(403, 'not-allowed', 'You do not have permission to do this.', {
      hint: `Ask the ${listed(rights[right])}.`,
    })
  }
}

/** "owner, designer or stockroom" */
const listed = (roles: readonly string[]) => new Intl.ListFormat('en-GB', { type: 'disjunction' }).format(roles)

/**
 * Pages take an answer as it comes: it must be what the contract's schema would make of it, with nothing more in it and nothing left to fill in.
 *
 * @throws Error where it is not
 */
export function checkAnswer(key: RouteKey, result: unknown): void {
  const { answer } = routeOf(key)
  if (typeof answer === 'string') throw new Error(`${key} is to answer by itself, with a ${answer}.`)
  const told: unknown = JSON.parse(JSON.stringify(result))
  const checked = answer.safeParse(told)
  if (!checked.success) {
    const [issue] = checked.error.issues
    throw new Error(`${key} answers what the contract does not say, at "${issue?.path.join('.')}": ${issue?.message}`)
  }
  // With its keys in any order.
  if (!isDeepStrictEqual(checked.data, told))
    throw new Error(`${key} answers more than the contract says, or less: ${JSON.stringify(told).slice(0, 500)}`)
}

/** What was asked for is done, and the rest of the answer failed; whoever has hung up does not miss it. */
function noteLate(request: Request, error: unknown): void {
  if (error instanceof RequestAborted) return
  const { method, path } = request
  const log: Logger = request.app.get('log')
  log.error({ error: describeError(error), method, path }, 'done, and its answer failed')
}

const untold = Symbol('done; the rest cannot be told')

/** @param seconds how long an answer may take after what was asked for is done */
async function late({ committed }: Idempotency, seconds: number): Promise<typeof untold> {
  await committed
  await new Promise((done) => setTimeout(done, 1000 * seconds).unref())
  return untold
}
