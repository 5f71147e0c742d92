import type { ApiError } from '@tessellum/contract/errors'

/** Something the server will not do, and why. */
export class HttpProblem extends Error {
  readonly path: string | undefined
  readonly hint: string | undefined

  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    more: { path?: string; hint?: string } = {},
  ) {
    super(message)
    this.name = 'HttpProblem'
    this.path = more.path
    this.hint = more.hint
  }

  /** As it was, from what it said elsewhere. */
  static from({ status, code, message, path, hint }: ApiError & { readonly status: number }): HttpProblem {
    return new HttpProblem(status, code, message, {
      ...(path === undefined ? {} : { path }),
      ...(hint === undefined ? {} : { hint }),
    })
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
  new HttpProblem(404, 'not-found', `There is no such ${what}.`, {
    hint: 'It may have been taken away; go back to the list.',
  })

/** For an address that nothing can be at. */
export const nothingThere = () =>
  new HttpProblem(404, 'not-found', 'There is nothing at this address.', { hint: 'Go back to the list.' })
