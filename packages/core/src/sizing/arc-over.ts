import type { Bead } from '../catalogue/bead'
import type { Mm } from '../measure/units'

/**
 * How long the way is that small beads take over half of a large one, from its hole to its hole: the outline of the half, half of a small bead's
 * width outside, with the turns round its belly and at both ends. Over a bicone of size s that is `2 s / sqrt 2 + pi d / 2`.
 *
 * @param over the large bead; its contact exponent tells its shape
 * @param small what lies over it
 */
export function arcOver(over: Pick<Bead, 'lengthMm' | 'acrossMm' | 'contact'>, small: Pick<Bead, 'acrossMm'>): Mm {
  const [length, across, off] = [over.lengthMm / 2, over.acrossMm / 2, small.acrossMm / 2]
  // A convex line that turns by half a circle from end to end is longer by pi times the distance outside it.
  if (over.contact <= 1.5) return 2 * Math.hypot(length, across) + Math.PI * off
  if (over.contact >= 4) return 2 * length + 2 * across + Math.PI * off
  // Half of an ellipse (Ramanujan).
  const [a, b] = [length + off, across + off]
  return (Math.PI / 2) * (3 * (a + b) - Math.sqrt((3 * a + b) * (a + 3 * b)))
}
