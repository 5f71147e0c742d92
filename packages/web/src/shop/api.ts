import type { Answer, api, BodyInput, Params, QueryInput, RouteKey } from '@tessellum/contract/api'
import type { ApiError } from '@tessellum/contract/errors'
import { isOfOwnBuild } from './page-build'
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

type Part<Name extends string, T> = [T] extends [undefined]
  ? unknown
  : Record<never, unknown> extends T
    ? { readonly [N in Name]?: T }
    : { readonly [N in Name]: T }

/** What is read only may be sent as well. */
type Sendable<T> = T extends readonly (infer Each)[]
  ? readonly Sendable<Each>[]
  : T extends object
    ? { readonly [Name in keyof T]: Sendable<T[Name]> }
    : T

type Named<Key extends RouteKey> = ([keyof Params<Key>] extends [never] ? unknown : { readonly params: Params<Key> }) &
  Part<'query', QueryInput<Key>>

/** What goes with a route: what its path names, its query, its body or its file. */
type Input<Key extends RouteKey> = Named<Key> &
  Part<'body', Sendable<BodyInput<Key>>> &
  ((typeof api)[Key] extends { readonly bytes: true } ? { readonly file: File } : unknown)

interface AnyInput {
  readonly params?: Readonly<Record<string, unknown>>
  readonly query?: Readonly<Record<string, unknown>>
  readonly body?: unknown
  readonly file?: File
}

/** The address of a route, with what its path names and its query: for links to files, too. */
export const addressOf = <Key extends RouteKey>(
  key: Key,
  ...named: Record<never, unknown> extends Named<Key> ? [named?: Named<Key>] : [named: Named<Key>]
): string => written(key, named[0] ?? {})

function written(key: RouteKey, { params = {}, query = {} }: AnyInput): string {
  const path = key
    .slice(key.indexOf(' ') + 1)
    .replaceAll(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(params[name])))
  const given = Object.entries(query).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]]))
  return given.length > 0 ? `${path}?${new URLSearchParams(given)}` : path
}

/** A browser keeps 64 kB of requests alive in all. */
const maxKeptAlive = 6000

/** A field whose number is not understood has NaN for a value, which JSON would write as null: nothing, where something was typed. */
function refuseNaN(_: string, value: unknown): unknown {
  if (typeof value === 'number' && Number.isNaN(value))
    throw new ShopError({
      code: 'bad-input',
      message: 'A number here cannot be read.',
      hint: 'Write it with a point and without a comma. Nothing has been saved.',
    })
  return value
}

/** Asks the server by the contract's table, and reads its answer by it. */
export async function call<Key extends RouteKey>(
  key: Key,
  ...given: Record<never, unknown> extends Input<Key> ? [input?: Input<Key>] : [input: Input<Key>]
): Promise<Answer<Key>> {
  const { file, body: unsent, ...named }: AnyInput = given[0] ?? {}
  const [method = 'GET'] = key.split(' ')
  const address = written(key, named)
  const body = unsent === undefined ? undefined : JSON.stringify(unsent, refuseNaN)
  const what = [person, method, address, body, file && `${file.name} ${file.size} ${file.lastModified}`].join(' ')
  let response: Response
  try {
    response = await fetch(address, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(file === undefined ? {} : { 'content-type': 'application/octet-stream' }),
        ...(method === 'GET' ? {} : { 'x-csrf-token': csrfToken, 'idempotency-key': keyOf(what) }),
      },
      body: file ?? body ?? null,
      // What is done goes on when the page is left: the server drops what whoever asked has hung up on.
      keepalive: method !== 'GET' && file === undefined && (body?.length ?? 0) < maxKeptAlive,
    })
  } catch {
    throw new ShopError({
      code: 'unreachable',
      message: 'The shop does not answer.',
      // What only reads is asked again by itself; what does something waits for the person.
      hint:
        method === 'GET'
          ? 'Nothing you typed is lost. Retrying automatically.'
          : 'Nothing you typed is lost, and nothing is done twice. Try again when the shop answers.',
    })
  }
  // Done, and nothing more could be told: asked again with the same key, it tells the rest when it can.
  if (response.status === 204)
    throw new ShopError({
      code: 'done',
      message: 'It is done.',
      hint: 'The results are still being worked out: reload the page to see them.',
    })
  const read: unknown = await response.json().catch(() => undefined)
  if (method !== 'GET' && response.status < 500) decided(what)
  if (response.ok) {
    if (isOfOwnBuild(response)) return read as Answer<Key>
    const understood = await understoodBy(key, read)
    if (understood) return understood.data as Answer<Key>
    throw new ShopError({
      code: 'other-version',
      message: 'The shop sent an answer that this page does not understand.',
      hint: method === 'GET' ? 'Reload the page.' : 'Done. Reload the page to see it.',
    })
  }
  throw new ShopError(isRefusal(read) ? read : { code: 'trouble', message: `The shop answered ${response.status}.` })
}

/** The shop has been brought up to date since this page was loaded: what it answers is read by the contract, which is loaded only then. */
async function understoodBy(key: RouteKey, read: unknown): Promise<{ readonly data: unknown } | undefined> {
  const contract = await import('@tessellum/contract/api').catch(() => undefined)
  const answer = contract?.routeOf(key).answer
  if (answer === undefined || typeof answer === 'string') return answer && { data: undefined }
  const understood = answer.safeParse(read)
  return understood.success ? understood : undefined
}

const isText = (value: unknown) => typeof value === 'string'

const isRefusal = (read: unknown): read is ApiError =>
  typeof read === 'object' &&
  read !== null &&
  'code' in read &&
  isText(read.code) &&
  'message' in read &&
  isText(read.message)
