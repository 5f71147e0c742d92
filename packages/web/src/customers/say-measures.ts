import type { Customer } from '@tessellum/contract/customers'
import { sayLength } from '@tessellum/core/measure/units'

/** "wrist 14.8 cm, finger 54 mm"; empty where none is known. */
export const sayMeasures = ({ wristMm, neckMm, fingerMm }: Customer): string =>
  (
    [
      ['wrist', wristMm],
      ['neck', neckMm],
      ['finger', fingerMm],
    ] as const
  )
    .flatMap(([name, mm]) => (mm === null ? [] : [`${name} ${sayLength(mm)}`]))
    .join(', ')
