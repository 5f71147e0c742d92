import type { ApiError } from '@tessellum/contract/errors'

/** Something the server will not do, and why. */
export class Refusal extends Error {
  readonly path: string | undefined
  readonly hint: string | undefined

  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    more: { path?: string; hint?: string } = {},
  ) {
    super(message)
    this.name = 'Refusal'
    this.path = more.path
    this.hint = more.hint
  }

  body(): ApiError {
    return {
      code: this.code,
      message: this.message,
      ...(this.path === undefined ? {} : { path: this.path }),
      ...(this.hint === undefined ? {} : { hint: this.hint }),
    }
  }
}

export const notFound = (what: string) =>
  new Refusal(404, 'not-found', `There is no such ${what}.`, {
    hint: 'It may have been taken away; go back to the list.',
  })
