/** What is read off the computed form, as a report tells it: figures, and words tied to lines. */
import { type Mm, mmPerInch, type UnitSystem } from '../measure/units'
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

/** Of finished work: "61.2 mm", "2.41 in". */
export const saySize = (mm: Mm, units: UnitSystem): string =>
  units === 'metric' ? sayMm(mm) : `${(mm / mmPerInch).toFixed(2)} in`

/** Extents within this share of themselves are decided. */
const decided = 0.01
/** Nothing is told more exactly than to a tenth of a millimetre. */
const tenth: Mm = 0.05
/** What gives way is found by a few starts to about half of how far it does. */
const fewTried = 2
/** An extent that nothing was found out about is told to within this share of itself. */
const unknown = 0.05
/** However loose it is, no figure is rounded by more than half of this share of itself. */
const coarsest = 0.1
/** What is exact is told with so many decimals, what is not in the largest of these steps that hides less than its play. */
const told: Readonly<
  Record<UnitSystem, { readonly mm: Mm; readonly decimals: number; readonly steps: readonly number[] }>
> = {
  metric: { mm: 1, decimals: 1, steps: [0.5, 1, 2, 5, 10, 20, 50, 100] },
  inches: { mm: mmPerInch, decimals: 2, steps: [0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5] },
}

type Extent = Pick<Measures, 'widthMm' | 'heightMm' | 'depthMm' | 'spreadMm'>

/**
 * Wide, high and deep, as exactly as they are decided: work that lies loosely may be laid wider or narrower, and is told in round figures.
 *
 * @returns in mm or inches, with a point before the tenths
 */
export function extentsTold(
  { widthMm, heightMm, depthMm, spreadMm }: Extent,
  units: UnitSystem = 'metric',
): { readonly figures: readonly string[]; readonly about: boolean } {
  const { mm: unit, decimals, steps } = told[units]
  let about = false
  const figures = [widthMm, heightMm, depthMm].map((mm, k) => {
    const tried = spreadMm?.[k]
    if (tried !== undefined && tried <= Math.max(decided * mm, tenth)) return (mm / unit).toFixed(decimals)
    about = true
    const play = tried === undefined ? unknown * mm : fewTried * tried
    const step = steps.findLast((each) => each <= Math.min(play, coarsest * mm) / unit) ?? (steps[0] as number)
    return (Math.round(mm / unit / step) * step).toFixed(step >= 1 ? 0 : step >= 0.1 ? 1 : 2)
  })
  return { figures, about }
}

/** "21.3 x 22.3 x 6.8 mm"; "about 47 x 11 x 5 mm": wide, high, deep. */
export function sayExtents(extent: Extent, units: UnitSystem = 'metric'): string {
  const { figures, about } = extentsTold(extent, units)
  return `${about ? 'about ' : ''}${figures.join(' x ')} ${units === 'metric' ? 'mm' : 'in'}`
}

/** What is measured along the piece, in words; empty where that says nothing more than its extents. */
export function sayAlong({ along, widthMm, heightMm, depthMm }: Measures, units: UnitSystem = 'metric'): string {
  const size = (mm: Mm) => saySize(mm, units)
  if (along?.type === 'band') return `${size(along.innerRoundMm)} round inside, ${size(along.innerAcrossMm)} across`
  const longest = Math.max(widthMm, heightMm, depthMm)
  return along && along.straightMm > 1.02 * longest ? `${size(along.straightMm)} long laid straight` : ''
}
