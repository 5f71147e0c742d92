import { type SpokenUnits, spokenUnits } from '@tessellum/core/stock/spoken-units'
import type { Session } from '../database/connect'
import { shopSettings } from './store'

/** What the shop measures in. */
export async function shopUnits(db: Session): Promise<SpokenUnits> {
  const { units, fingers } = (await shopSettings(db)).measures
  return spokenUnits(units, fingers)
}
