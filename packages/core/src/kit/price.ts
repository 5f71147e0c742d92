/** What a kit costs the shop beside its beads, and what is asked for it. Money in minor units throughout. */

export interface CostSettings {
  /** Bags, card and string of one kit. */
  readonly packaging: number
  /** Of one printed pattern. */
  readonly printing: number
  readonly packingMinutes: number
  /** For an hour of packing. */
  readonly wage: number
  /** Share of beads that is spilt, culled and swept up: 0.05. */
  readonly waste: number
  /** Share of the price that is to stay with the shop: 0.45. */
  readonly margin: number
  /** For an hour of teaching. */
  readonly teaching: number
  /** Prices are whole multiples of this, in minor units. */
  readonly roundTo: number
}

export const usualCosts: CostSettings = {
  packaging: 65,
  printing: 40,
  packingMinutes: 6,
  wage: 1320,
  waste: 0.05,
  margin: 0.45,
  teaching: 3200,
  roundTo: 10,
}

export interface KitPrice {
  readonly materials: number
  readonly waste: number
  readonly packaging: number
  readonly printing: number
  readonly packing: number
  readonly cost: number
  /** What must be asked so that the margin stays. */
  readonly price: number
}

/** @param materials of one kit, by the lots it is filled from or by the packs that are bought */
export function priceOfKit(materials: number, settings: CostSettings): KitPrice {
  const waste = materials * settings.waste
  const packing = (settings.packingMinutes / 60) * settings.wage
  const cost = materials + waste + settings.packaging + settings.printing + packing
  const round = Math.round
  return {
    materials: round(materials),
    waste: round(waste),
    packaging: settings.packaging,
    printing: settings.printing,
    packing: round(packing),
    cost: round(cost),
    price: priceFor(cost, settings),
  }
}

/** In whole steps of what prices are rounded to, never below what the margin asks. */
export function priceFor(cost: number, { margin, roundTo }: Pick<CostSettings, 'margin' | 'roundTo'>): number {
  if (!(margin >= 0 && margin < 1)) throw new RangeError('A margin is a share from 0 up to, and without, 1.')
  return Math.ceil(cost / (1 - margin) / roundTo - 1e-9) * roundTo
}

export interface SeatPrice {
  /** The kits of a seat: its own and its share of the spare ones. */
  readonly kits: number
  readonly teaching: number
  readonly cost: number
  readonly price: number
}

/**
 * What a seat in a class costs and asks, when so many seats are taken.
 *
 * @param kit one kit's cost
 * @param minutes of teaching
 */
export function priceOfSeat(
  kit: number,
  seats: number,
  spareKits: number,
  minutes: number,
  settings: CostSettings,
): SeatPrice {
  if (!(seats >= 1)) throw new RangeError('A class has at least one seat.')
  const kits = (kit * (seats + spareKits)) / seats
  const teaching = ((minutes / 60) * settings.teaching) / seats
  const cost = kits + teaching
  return {
    kits: Math.round(kits),
    teaching: Math.round(teaching),
    cost: Math.round(cost),
    price: priceFor(cost, settings),
  }
}

/** What of a price is tax, where the price has it in it. @param share of what is left without it: 0.2 */
export const taxIn = (price: number, share: number): number => Math.round(price - price / (1 + share))
