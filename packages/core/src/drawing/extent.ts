import type { SceneBead } from './scene'

/**
 * Half the extent of a bead in a direction: the support of its superellipsoid. The direction is given by its cosines along the hole, toward
 * the second bore (across, for a bead with one) and through the thickness.
 */
export function extentOf(
  bead: Pick<SceneBead, 'lengthMm' | 'wideMm' | 'acrossMm' | 'contact'>,
  along: number,
  wide: number,
  thick: number,
): number {
  const dual = bead.contact / Math.max(bead.contact - 1, 0.01)
  return (
    ((Math.abs(along) * bead.lengthMm * 0.5) ** dual +
      (Math.abs(wide) * bead.wideMm * 0.5) ** dual +
      (Math.abs(thick) * bead.acrossMm * 0.5) ** dual) **
    (1 / dual)
  )
}
