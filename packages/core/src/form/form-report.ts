/** What is read off the computed form, as a report tells it: figures, and words tied to lines. */
import type { Mm } from '../measure/units'
import type { Measures } from './measure'
import type { Progress } from './settle'

/** Something that the form shows. */
export interface Finding {
  /** The line it is about; undefined for the piece as a whole. */
  readonly line: number | undefined
  readonly tone: 'good' | 'plain' | 'trouble'
  readonly text: string
}

export interface FormReport extends Omit<Measures, 'laid'> {
  readonly findings: readonly Finding[]
}

/** The form could not be computed, or has not come to rest: the plain estimates stand, and why. */
export interface Unformed {
  readonly progress: Progress | undefined
  readonly why: string
}

export const sayMm = (mm: Mm): string => `${mm.toFixed(1)} mm`

/** "21.3 x 22.3 x 6.8 mm": wide, high, deep. */
export const sayExtents = ({
  widthMm,
  heightMm,
  depthMm,
}: Pick<FormReport, 'widthMm' | 'heightMm' | 'depthMm'>): string =>
  `${[widthMm, heightMm, depthMm].map((mm) => mm.toFixed(1)).join(' x ')} mm`
