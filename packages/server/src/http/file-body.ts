import { mayDo, type Right } from '@tessellum/contract/rights'
import express, { type Request, type RequestHandler } from 'express'
import type { SignedIn } from '../context'
import { digestBody } from '../idempotency/request-key'

/** Reads a body that is a file as it is; of whoever may not send one, nothing of that size is read. */
export function fileBody(right: Right, limit: number | string): RequestHandler {
  const readBytes = express.raw({ type: () => true, limit, verify: digestBody })
  return (request, response, next) => {
    const caller: SignedIn | undefined = response.locals.caller
    if (caller && request.method === 'POST' && mayDo(caller.roles, right)) readBytes(request, response, next)
    else next()
  }
}

export const bytesOf = ({ body }: Request): Uint8Array =>
  Buffer.isBuffer(body) ? new Uint8Array(body) : new Uint8Array()
