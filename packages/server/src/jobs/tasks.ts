/** What the worker threads can do. Everything here is plain data in and out, so that it can cross between threads. */
import type { Choice } from '@tessellum/contract/colourways'
import type { Edition } from '@tessellum/contract/editions'
import type { PatternDrawing } from '@tessellum/contract/patterns'
import type { Crop } from '@tessellum/contract/pictures'
import type { Item } from '@tessellum/contract/stock'
import type { StockFileOutcome } from '@tessellum/contract/stock-file'
import type { Allocation, AllocationLine, AllocationLot } from '@tessellum/core/allocation/allocation'
import type { Purchase } from '@tessellum/core/allocation/buy'
import type { Shortage } from '@tessellum/core/allocation/shortages'
import type { Hand } from '@tessellum/core/drawing/mirror'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Bill } from '@tessellum/core/kit/bill'
import type { Pack } from '@tessellum/core/kit/cost'
import type { SparePolicy } from '@tessellum/core/kit/spares'
import type { Report } from '@tessellum/core/report/report'
import type { Counting } from '@tessellum/core/sizing/counting'
import type { ThreadSettings } from '@tessellum/core/thread/settings'
import type { LanguageCode } from '@tessellum/core/writing/language'
import type { Density, DocumentStyle, Seat, Sheet } from '@tessellum/core/writing/layout'
import type { Label } from '../documents/label'
import type { PictureFiles } from '../documents/picture-files'

export interface Kit {
  readonly source: string
  readonly size: string
  readonly choices: readonly Choice[]
  /** At least those that `choices` name. */
  readonly items: readonly Item[]
  /** As the shop works with thread, and what samples had shown of this one. */
  readonly thread: ThreadSettings
  readonly spares: SparePolicy
}

export interface Tasks {
  evaluate: { input: { source: string; choices: Choices }; output: { report: Report } }
  /** The size it is usually made in, and what its sizes set. A long text is not read in a moment. */
  sizes: { input: { source: string }; output: { usual: string; measures: string[] } }
  /** Evaluated, with its form: thread is measured on it. */
  form: { input: { source: string; choices: Choices }; output: { report: Report } }
  /** Its drawing from the front, as JSON of a view, and the figures beside it. */
  draw: { input: { source: string }; output: Omit<PatternDrawing, 'digest' | 'current'> & { view: string | null } }
  /** Which lots fill which kits: solved within its limit. */
  allocate: { input: { lines: readonly AllocationLine[]; lots: readonly AllocationLot[] }; output: Allocation }
  /** What must be bought for what an allocation does not make. */
  shortages: {
    input: { lines: readonly AllocationLine[]; lots: readonly AllocationLot[]; allocation: Allocation }
    output: Shortage[]
  }
  /** Whole packs for each shortage, at least cost. */
  buy: {
    input: { shortages: readonly { readonly short: number; readonly packs: readonly Pack[] }[] }
    output: (Purchase | undefined)[]
  }
  /** Beads of the shelf that could stand in for a role, the best first. */
  substitutes: {
    input: Omit<Kit, 'items'> & { readonly role: string; readonly kits: number; readonly most: number }
    output: { readonly id: number; readonly counting: Counting }[]
  }
  bill: { input: Kit; output: { bill: Bill; troubles: string[] } }
  /** CSV or XLSX as rows of text. */
  readTable: { input: { bytes: Uint8Array }; output: { rows: string[][]; commas: boolean } }
  writeTable: {
    input: { rows: readonly (readonly string[])[]; format: 'csv' | 'xlsx'; name: string }
    output: Uint8Array
  }
  /** The whole shop as a ZIP, signed with the key. */
  archive: { input: { key: string }; output: Uint8Array }
  stockFile: { input: { format: 'csv' | 'xlsx' }; output: Uint8Array }
  /** What a file of stock would do, and doing it, in one transaction. */
  previewStock: { input: { bytes: Uint8Array }; output: StockFileOutcome }
  takeStock: {
    input: {
      bytes: Uint8Array
      caller: { id: number; idempotency: { key: string; digest: string } }
    }
    output: StockFileOutcome
  }
  /** A photograph in every size; refused where it is none. */
  picture: { input: { bytes: Uint8Array; crop: Crop | null }; output: PictureFiles }
  labels: { input: { labels: readonly Label[]; paper: 'roll' | 'A4' }; output: Uint8Array }
  document: {
    input: {
      edition: Edition
      language: LanguageCode
      paper: 'A4' | 'LETTER'
      sheet: Sheet
      density: Density
      style: DocumentStyle
      hand: Hand
      seat: Seat | undefined
      /** Empty where it is nobody's in particular. */
      buyer: string
    }
    output: Uint8Array
  }
}

export type TaskName = keyof Tasks
