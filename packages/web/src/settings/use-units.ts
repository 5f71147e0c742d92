import { type SpokenUnits, spokenUnits } from '@tessellum/core/stock/spoken-units'
import { useMemo } from 'react'
import { useShopSettings } from './use-shop-settings'

/** What the shop's screens measure in. */
export function useUnits(): SpokenUnits {
  const { units, fingers } = useShopSettings().measures
  return useMemo(() => spokenUnits(units, fingers), [units, fingers])
}

/** Under which a form is kept until it is sent, by the units it was typed in: five grams are not to become five ounces. */
export const keptIn = ({ system }: Pick<SpokenUnits, 'system'>, name: string): string =>
  system === 'metric' ? name : `${name}-${system}`
