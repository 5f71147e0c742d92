import type { Mm } from '../measure/units'

/** By how much the edge on a face holds a stone; where it is larger than the stone, or there is none, by nothing. */
export const sayHeld = (mm: Mm | undefined): string => (mm === undefined || mm < 0 ? 'nothing' : `${mm.toFixed(1)} mm`)
