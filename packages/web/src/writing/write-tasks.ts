/** Writes editions off the page's own thread: every size is settled for them. */
import type { Hand } from '@tessellum/core/drawing/mirror'
import { checkEdition, type Lack } from '@tessellum/core/writing/check'
import { drawingsAsSvg, type Gathered, writeEdition } from '@tessellum/core/writing/edition'
import { htmlBody, type Setting, toHtml } from '@tessellum/core/writing/html'
import type { LanguageCode } from '@tessellum/core/writing/language'
import { toMarkdown } from '@tessellum/core/writing/markdown'
import type { StepWords } from '@tessellum/core/writing/step-words'
import { wordsAside } from '@tessellum/core/writing/step-words'
import { stepKeys } from '@tessellum/core/writing/write-pattern'
import type { WrittenPattern } from '@tessellum/core/writing/written-pattern'

export interface Page {
  readonly body: string
  readonly html: string
  readonly markdown: string
  /** The piece from the front. */
  readonly svg: string | undefined
  readonly written: WrittenPattern
  readonly sizes: readonly string[]
  readonly size: string
  readonly aside: readonly StepWords[]
  readonly why: string | undefined
}

export const tasks = {
  write(gathered: Gathered, language: LanguageCode, hand: Hand, chosen: Omit<Setting, 'drawings'>): Page {
    const edition = writeEdition(gathered, language, hand)
    const drawings = drawingsAsSvg(edition)
    const { written, report, why } = edition
    const setting = { ...chosen, drawings }
    return {
      body: htmlBody(written, setting),
      html: toHtml(written, setting),
      markdown: toMarkdown(written, chosen.pictures),
      svg: drawings?.piece,
      written,
      sizes: report.sizes,
      size: report.size,
      aside: wordsAside(gathered.words, stepKeys(report)),
      why,
    }
  },
  check: (gathered: Gathered): Lack[] => checkEdition(gathered),
}

export type WriteTasks = typeof tasks
