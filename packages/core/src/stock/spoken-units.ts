/** What a shop's screens measure in, and what people type there. Records are in milligrams, millimetres and pieces whatever it is. */
import type { StockUnit } from '../kit/bill'
import {
  type Mg,
  type Mm,
  mgPerOunce,
  mmPerInch,
  sayFeet,
  sayInches,
  sayLength,
  sayMass,
  sayOunces,
  trim,
  type UnitSystem,
} from '../measure/units'
import { type FingerSystem, nearestFinger } from '../sizing/finger'
import { quantityParts } from './quantity'

export interface SpokenUnits {
  readonly system: UnitSystem
  readonly fingers: FingerSystem
  /** Of finished work: "18.4 cm", "7.2 in". */
  length(mm: Mm): string
  /** "1.2 m of thread", "3 ft 11.2 in". */
  thread(mm: Mm): string
  mass(mg: Mg): string
  /** Of stock: "12.5 g", "0.44 oz", "100 pcs". */
  quantity(quantity: number, unit: StockUnit): string
  /** The same to the last milligram or millimetre: for a figure that decides something. */
  exactly(quantity: number, unit: StockUnit): string
  /** The same in two, for a figure whose unit is set apart. */
  parts(quantity: number, unit: StockUnit): readonly [figure: string, unit: string]
  /** Of a finger, by its inner circumference: "54 mm", "US 7", "UK N 1/2". */
  finger(mm: Mm): string
  /** What a quantity is typed in. */
  readonly word: Readonly<Record<StockUnit, string>>
  /** As it is typed: the shortest figure that is recorded as the same quantity again, so that a field left alone changes nothing. */
  typed(quantity: number, unit: StockUnit): number
  /** What was typed as it is recorded: whole milligrams, millimetres or pieces. */
  recorded(typed: number, unit: StockUnit): number
}

/** What scales, spools and files tell, wherever the shop is. */
export const metricUnits = (): SpokenUnits => spokenUnits('metric', 'ISO')

const metric = {
  per: { mg: 1000, mm: 1000, piece: 1 },
  word: { mg: 'g', mm: 'm', piece: 'pcs' },
  length: sayLength,
  thread: sayLength,
  mass: sayMass,
  parts: quantityParts,
}

const inches: typeof metric = {
  per: { mg: mgPerOunce, mm: 12 * mmPerInch, piece: 1 },
  word: { mg: 'oz', mm: 'ft', piece: 'pcs' },
  length: sayInches,
  thread: sayFeet,
  mass: sayOunces,
  parts(quantity, unit) {
    if (unit === 'piece') return quantityParts(quantity, unit)
    const figure = quantity / inches.per[unit]
    const decimals = Math.abs(figure) < 0.1 ? 3 : unit === 'mg' ? 2 : 1
    return [trim(figure, decimals).replace('-', '−'), inches.word[unit]]
  },
}

/** A milligram is 0.00004 oz: more tell nothing. */
const maxDecimals = 6

export function spokenUnits(system: UnitSystem, fingers: FingerSystem): SpokenUnits {
  const { per, ...said } = system === 'inches' ? inches : metric
  const recorded = (typed: number, unit: StockUnit) => Math.round(typed * per[unit])
  const typed = (quantity: number, unit: StockUnit) => {
    let decimals = 0
    let figure = Math.round(quantity / per[unit])
    while (recorded(figure, unit) !== quantity && decimals < maxDecimals)
      figure = Number((quantity / per[unit]).toFixed(++decimals))
    return figure
  }
  return {
    ...said,
    system,
    fingers,
    quantity: (quantity, unit) => said.parts(quantity, unit).join(' '),
    finger: (mm) => (fingers === 'ISO' ? sayLength(mm) : `${fingers} ${nearestFinger(mm, fingers).size}`),
    exactly: (quantity, unit) => `${typed(quantity, unit)} ${said.word[unit]}`,
    typed,
    recorded,
  }
}
