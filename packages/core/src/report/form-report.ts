/** What is read off the computed form, as a report tells it: figures, and words tied to lines. */
import type { Mm } from '../measure/units'
import type { Measures, Progress, Strain } from './measures'

/** Something that the form shows. */
export interface Finding {
  /** The line it is about; undefined for the piece as a whole. */
  readonly line: number | undefined
  readonly tone: 'good' | 'plain' | 'trouble'
  readonly text: string
}

/** What is told of every form. */
interface Told {
  readonly progress: Progress
  /** Threads that gape by more than a bead's width, of all. */
  readonly strained: { readonly threads: number; readonly of: number }
  readonly strain: readonly Strain[]
  readonly findings: readonly Finding[]
}

/** A form whose figures can be relied on. */
export interface SoundForm extends Told, Measures {
  readonly sound: true
}

/** A form that can be looked at, and nothing is read off it. */
export interface UnsoundForm extends Told {
  readonly sound: false
}

export type FormReport = SoundForm | UnsoundForm

/** The form of a report, where its figures can be relied on. */
export const soundForm = ({ form }: { readonly form?: FormReport | undefined }): SoundForm | undefined =>
  form?.sound ? form : undefined

/** The form could not be computed, or is not sound: the plain estimates stand, and why. */
export interface FormUnavailable {
  readonly progress: Progress | undefined
  readonly why: string
}

export const sayMm = (mm: Mm): string => `${mm.toFixed(1)} mm`

/** "21.3 x 22.3 x 6.8 mm": wide, high, deep. */
export const sayExtents = ({
  widthMm,
  heightMm,
  depthMm,
}: Pick<Measures, 'widthMm' | 'heightMm' | 'depthMm'>): string =>
  `${[widthMm, heightMm, depthMm].map((mm) => mm.toFixed(1)).join(' x ')} mm`

/** What is measured along the piece, in words; empty where that says nothing more than its extents. */
export function sayAlong({ along, widthMm, heightMm, depthMm }: Measures): string {
  if (along?.type === 'band') return `${sayMm(along.innerRoundMm)} round inside, ${sayMm(along.innerAcrossMm)} across`
  const longest = Math.max(widthMm, heightMm, depthMm)
  return along && along.straightMm > 1.02 * longest ? `${sayMm(along.straightMm)} long laid straight` : ''
}
