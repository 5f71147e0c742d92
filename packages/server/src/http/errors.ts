import type { ErrorRequestHandler, RequestHandler } from 'express'
import type { Logger } from 'pino'
import { RequestAborted } from '../context'
import { isFull, isHeld, isUnreachable, isUnwritable, mayTryAgain } from '../database/errors'
import { HttpProblem } from '../problem'
import { describeError } from './describe'

export const nothingHere: RequestHandler = (request) => {
  throw new HttpProblem(404, 'not-found', `There is nothing at ${request.method} ${request.path}.`)
}

/** Every error leaves in the one shape; what is not the caller's doing is logged, and not told. */
export const answerErrors =
  (log: Logger): ErrorRequestHandler =>
  (error, request, response, next) => {
    // Whoever asked has hung up: nobody reads an answer.
    if (response.destroyed) return
    if (response.headersSent) {
      next(error)
      return
    }
    const refusal = asProblem(error)
    // What is refused in words was foreseen: only what was not is worth looking into.
    if (refusal.status >= 500 && !(error instanceof HttpProblem))
      log.error({ error: describeError(error), method: request.method, path: request.path }, 'a request failed')
    if (refusal.status === 503) response.setHeader('retry-after', '3')
    response.status(refusal.status).json(refusal.body())
  }

/** What went wrong, as it is told; 500 where it is nobody's doing but ours. */
export function asProblem(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error
  if (error instanceof RequestAborted)
    return new HttpProblem(503, 'busy', 'This was given up half way.', {
      hint: 'Nothing has been changed. Try again.',
    })
  if (isUnreachable(error)) {
    return new HttpProblem(503, 'records-unreachable', "The shop's records cannot be reached just now.", {
      hint: 'Try again in a moment; nothing is done twice.',
    })
  }
  if (isFull(error)) {
    return new HttpProblem(507, 'disk-full', "The disk that keeps the shop's records is full.", {
      hint: 'Nothing has been changed. Make room on it, old backups first, and try again.',
    })
  }
  if (isHeld(error)) {
    return new HttpProblem(503, 'busy', 'Somebody else is working on the same thing just now.', {
      hint: 'Nothing has been changed. Try again in a moment.',
    })
  }
  if (mayTryAgain(error)) {
    return new HttpProblem(409, 'crossed', 'Somebody changed the same thing at the same moment.', {
      hint: 'Nothing has been changed. Try again.',
    })
  }
  if (isUnwritable(error))
    return new HttpProblem(400, 'bad-input', 'Something in this is more than the records can hold.')
  const { status, type } = (error ?? {}) as { status?: number; type?: string }
  if (type === 'entity.too.large')
    return new HttpProblem(413, 'too-large', 'That is more than can be taken at once.', {
      hint: 'A pattern has at most 2,000,000 characters, a file of stock at most 20 MB.',
    })
  if (type === 'entity.parse.failed') return new HttpProblem(400, 'bad-input', 'The request is not JSON.')
  if (typeof status === 'number' && status >= 400 && status < 500) {
    return new HttpProblem(
      status,
      status === 403 ? 'stale-page' : 'bad-input',
      status === 403 ? 'This page has been open too long.' : 'The request cannot be read.',
      {
        hint: 'Reload the page; what you typed is kept.',
      },
    )
  }
  return new HttpProblem(500, 'trouble', 'Something went wrong on our side.', {
    hint: 'It has been noted. Try again; if it stays, tell the owner.',
  })
}
