import type { Customer } from '@tessellum/contract/customers'
import type { SpokenUnits } from '@tessellum/core/stock/spoken-units'

/** "wrist 14.8 cm, finger 54 mm"; empty where none is known. */
export const sayMeasures = ({ wristMm, neckMm, fingerMm }: Customer, units: SpokenUnits): string =>
  [
    wristMm !== null && `wrist ${units.length(wristMm)}`,
    neckMm !== null && `neck ${units.length(neckMm)}`,
    fingerMm !== null && `finger ${units.finger(fingerMm)}`,
  ]
    .filter(Boolean)
    .join(', ')
