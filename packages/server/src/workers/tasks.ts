/** What the worker threads can do. Everything here is plain data in and out, so that it can cross between threads. */
import type { Choice } from '@tessellum/contract/colourways'
import type { Item } from '@tessellum/contract/stock'
import type { Bill } from '@tessellum/core/kit/bill'
import type { Choices } from '@tessellum/core/report/reckon-pattern'
import type { Report } from '@tessellum/core/report/report'

export interface Kit {
  readonly source: string
  readonly size: string
  readonly choices: readonly Choice[]
  /** At least those that `choices` name. */
  readonly items: readonly Item[]
}

export interface Tasks {
  reckon: { input: { source: string; choices: Choices }; output: { report: Report } }
  /** Reckoned, with its form: thread is measured on it. */
  form: { input: { source: string; choices: Choices }; output: { report: Report } }
  bill: { input: Kit; output: { bill: Bill; troubles: string[] } }
  document: {
    input: Kit & { version: number | undefined; colourway: string | undefined; paper: 'A4' | 'LETTER' }
    output: Uint8Array
  }
}

export type TaskName = keyof Tasks
