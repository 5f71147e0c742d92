import { type ApiError, apiError } from '@tessellum/contract/errors'
import type { z } from 'zod'
import { decided, keyOf } from './undecided'

/** What the server refused, in words for people. `code` "unreachable" when it did not answer at all. */
export class ShopError extends Error {
  readonly code: string
  readonly hint: string | undefined
  readonly path: string | undefined

  constructor(body: ApiError) {
    super(body.message)
    this.code = body.code
    this.hint = body.hint
    this.path = body.path
  }
}

export const isUnreachable = (error: unknown) =>
  error instanceof ShopError && (error.code === 'unreachable' || error.code === 'records-unreachable')

let csrfToken = ''
let person = ''
/** Called by whoever learns who is signed in. */
export const keepSession = (me: { readonly csrfToken: string; readonly name: string }) => {
  csrfToken = me.csrfToken
  person = me.name
}
/** Their sign-in name; what is typed on a machine that several share stays with who typed it. */
export const signedIn = () => person

interface Asked {
  readonly body?: unknown
}

/** Sends a file as it is, and reads the answer. */
export const sendFile = <T extends z.ZodType>(path: string, file: File, answer: T): Promise<z.output<T>> =>
  send('POST', path, answer, { file })

/** Asks the server and reads its answer by the contract's schema. */
export const ask = <T extends z.ZodType>(
  method: 'GET' | 'POST' | 'PUT',
  path: string,
  answer: T,
  asked: Asked = {},
): Promise<z.output<T>> => send(method, path, answer, asked)

/** A browser keeps 64 kB of requests alive in all. */
const mostKeptAlive = 6000

async function send<T extends z.ZodType>(
  method: string,
  path: string,
  answer: T,
  asked: Asked & { readonly file?: File },
): Promise<z.output<T>> {
  const { file } = asked
  const body = asked.body === undefined ? undefined : JSON.stringify(asked.body)
  const what = [person, method, path, body, file && `${file.name} ${file.size} ${file.lastModified}`].join(' ')
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(file === undefined ? {} : { 'content-type': 'application/octet-stream' }),
        ...(method === 'GET' ? {} : { 'x-csrf-token': csrfToken, 'idempotency-key': keyOf(what) }),
      },
      body: file ?? body ?? null,
      // What is done goes on when the page is left: the server drops what whoever asked has hung up on.
      keepalive: method !== 'GET' && file === undefined && (body?.length ?? 0) < mostKeptAlive,
    })
  } catch {
    throw new ShopError({
      code: 'unreachable',
      message: 'The shop does not answer.',
      // What only reads is asked again by itself; what does something waits for the person.
      hint:
        method === 'GET'
          ? 'Nothing typed is lost. It is tried again by itself.'
          : 'Nothing typed is lost, and nothing is done twice. Try again when the shop answers.',
    })
  }
  // Done, and nothing more could be told: asked again with the same key, it tells the rest when it can.
  if (response.status === 204)
    throw new ShopError({
      code: 'done',
      message: 'It is done.',
      hint: 'What follows from it is still being worked out: load the page again to see it.',
    })
  const read: unknown = await response.json().catch(() => undefined)
  if (method !== 'GET' && response.status < 500) decided(what)
  if (response.ok) return answer.parse(read)
  const refused = apiError.safeParse(read)
  throw new ShopError(
    refused.success ? refused.data : { code: 'trouble', message: `The shop answered ${response.status}.` },
  )
}
