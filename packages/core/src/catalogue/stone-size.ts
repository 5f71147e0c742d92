/** Stones by the words of a label and by the measures of a pattern: whether one is the other. */
import { type Mm, trim } from '../measure/units'
import type { StoneShape } from './stone'

/** What a label says of a stone. */
export interface LabelledStone {
  /** "round", "oval": the first word of its kind. */
  readonly shape: string
  /** The smaller first. */
  readonly measuresMm: readonly Mm[]
}

/** Stones of one size differ by so much. */
const toleranceMm: Mm = 0.3

/** "round stone", "14 mm"; "oval stone", "13 x 18 mm". Undefined where no measure can be read. */
export function labelledStone(kind: string, size: string): LabelledStone | undefined {
  const shape = /^\s*(\p{L}+)/u.exec(kind.toLowerCase())?.[1]
  const measures = [...size.matchAll(/\d+(?:[.,]\d+)?/g)].map(([text]) => Number(text.replace(',', '.')))
  if (!shape || measures.length === 0 || measures.some((mm) => !(mm > 0))) return undefined
  return { shape, measuresMm: measures.slice(0, 2).sort((a, b) => a - b) }
}

/** "18 mm", "13 x 18 mm"; empty where only the girth is known. */
export const stoneMeasures = (outline: StoneShape): string =>
  outline.shape === 'girth' ? '' : sayMeasures(measuresOf(outline))

const sayMeasures = (measures: readonly Mm[]) => `${measures.map((mm) => trim(mm, 2)).join(' x ')} mm`

const measuresOf = (outline: StoneShape): readonly Mm[] => {
  switch (outline.shape) {
    case 'round':
      return [outline.diameter]
    case 'triangle':
    case 'square':
      return [outline.width]
    case 'girth':
      return []
    default:
      return [outline.width, outline.length]
  }
}

/** "round, 18 mm", "oval, 13 x 18 mm". */
export const sayStone = (outline: StoneShape): string =>
  outline.shape === 'girth'
    ? `${trim(outline.girth, 1)} mm round`
    : `${outline.shape}, ${sayMeasures(measuresOf(outline))}`

export const sayLabelled = ({ shape, measuresMm }: LabelledStone): string => `${shape}, ${sayMeasures(measuresMm)}`

/** Whether a stone goes where a pattern wants one. A pattern that only knows the girth of its stone takes any. */
export function stoneServes(wanted: StoneShape, has: LabelledStone): boolean {
  if (wanted.shape === 'girth') return true
  const measures = measuresOf(wanted)
  // "Cushion 12 mm" is a square: shapes are told apart only where both are known.
  if (known.has(has.shape) && has.shape !== wanted.shape) return false
  const [first = 0, second = first] = has.measuresMm
  const [width = 0, length = width] = measures
  return Math.abs(first - width) <= toleranceMm && Math.abs(second - length) <= toleranceMm
}

const known = new Set(['round', 'oval', 'triangle', 'square', 'rectangle', 'navette', 'drop'])
