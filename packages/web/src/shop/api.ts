import { type ApiError, apiError } from '@tessellum/contract/errors'
import type { z } from 'zod'

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
  /** Makes the request safe to repeat. */
  readonly key?: string
}

/** Sends a file as it is, and reads the answer. */
export const sendFile = <T extends z.ZodType>(path: string, file: File, answer: T, key: string): Promise<z.output<T>> =>
  send('POST', path, answer, { file, key })

/** Asks the server and reads its answer by the contract's schema. */
export const ask = <T extends z.ZodType>(
  method: 'GET' | 'POST' | 'PUT',
  path: string,
  answer: T,
  asked: Asked = {},
): Promise<z.output<T>> => send(method, path, answer, asked)

async function send<T extends z.ZodType>(
  method: string,
  path: string,
  answer: T,
  asked: Asked & { readonly file?: File },
): Promise<z.output<T>> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        ...(asked.body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(asked.file === undefined ? {} : { 'content-type': 'application/octet-stream' }),
        ...(method === 'GET' ? {} : { 'x-csrf-token': csrfToken }),
        ...(asked.key === undefined ? {} : { 'idempotency-key': asked.key }),
      },
      ...(asked.body === undefined ? {} : { body: JSON.stringify(asked.body) }),
      ...(asked.file === undefined ? {} : { body: asked.file }),
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
  const body: unknown = await response.json().catch(() => undefined)
  if (response.ok) return answer.parse(body)
  const refused = apiError.safeParse(body)
  throw new ShopError(
    refused.success ? refused.data : { code: 'trouble', message: `The shop answered ${response.status}.` },
  )
}

/** A key for one thing a person does; a repeated request carries the same. */
export const newKey = () => crypto.randomUUID()
