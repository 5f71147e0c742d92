import type { StockUnit } from '../kit/bill'
import { trim } from '../measure/units'

/** A stock quantity as people say it: grams, metres or pieces. */
export function sayQuantity(quantity: number, unit: StockUnit): string {
  const [figure, word] = quantityParts(quantity, unit)
  return `${figure} ${word}`
}

/** To the milligram. */
export const sayFinely = (quantity: number, unit: StockUnit): string =>
  unit === 'mg' ? `${trim(quantity / 1000, 3)} g` : sayQuantity(quantity, unit)

export function quantityParts(quantity: number, unit: StockUnit): [figure: string, unit: string] {
  if (unit === 'mg') return [group(trim(quantity / 1000, 1)), 'g']
  if (unit === 'mm') return [group(trim(quantity / 1000, 1)), 'm']
  return [group(String(quantity)), 'pcs']
}

const group = (figure: string) => figure.replace(/\B(?=(\d{3})+(?!\d))/g, ' ').replace('-', '−')

/** How many base units one of the unit people speak in has. */
export const perSpoken: Readonly<Record<StockUnit, number>> = { mg: 1000, mm: 1000, piece: 1 }
export const spokenUnit: Readonly<Record<StockUnit, string>> = { mg: 'g', mm: 'm', piece: 'pcs' }
