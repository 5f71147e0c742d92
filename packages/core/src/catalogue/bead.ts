import type { Mg, Mm } from '../measure/units'

/**
 * A bead as the arithmetic sees it. The figures belong to the catalogue record of one maker's bead; where a pattern is read
 * without a colourway the nominal record of its kind and size stands in (nominal-beads.ts).
 */
export interface Bead {
  /** "cylinder", "round", "twin tile"... a generic kind, in lower case. */
  readonly kind: string
  /** "11/0", "4 mm", "5 x 5 x 1.9 mm". */
  readonly size: string
  /** Along the hole. */
  readonly lengthMm: Mm
  /** Across, at the widest. */
  readonly acrossMm: Mm
  readonly boreMm: Mm
  readonly massMg: Mg
  /** Exponent of the contact surface: 2 an ellipsoid, 4 near a cylinder, 1.2 a bicone. */
  readonly contact: number
  readonly bores: 1 | 2
  /** Of a bead that does not lie the same all round its hole: across the wide way, where `acrossMm` is its thickness. */
  readonly wideMm?: Mm
  /** Of a bead with two bores side by side: from the middle of one to the middle of the other. Bores that cross have none. */
  readonly boreGapMm?: Mm
  /** Of a bead that hangs from its hole: from there to the middle of the bead. */
  readonly offMm?: Mm
  readonly maker?: string
}

/** "cylinder 11/0", as it is written in a pattern and on a label. */
export const beadName = (bead: Pick<Bead, 'kind' | 'size'>): string => `${bead.kind} ${bead.size}`

/** Seed beads up to 8/0 are weighed into bags; everything else is counted. */
export const isSeedBead = (bead: Pick<Bead, 'kind' | 'size'>): boolean =>
  /^(1[0-9]|[89])\/0$/.test(bead.size) && (bead.kind === 'round' || bead.kind === 'cylinder')

/** "5x5X1.9mm" and "5 × 5 x 1.9 mm" are one size: numbers apart by " x ", unit last. */
export function normalSize(text: string): string {
  const tidy = text.trim().toLowerCase().replace(/×/g, 'x').replace(/\s+/g, ' ')
  if (/^\d+\/0$/.test(tidy)) return tidy
  const numbers = tidy.replace(/\s*mm$/, '').split(/\s*x\s*/)
  return `${numbers.join(' x ')} mm`
}
