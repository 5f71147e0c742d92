import type { StockUnit } from '@tessellum/contract/stock'
import { useUnits } from '../settings/use-units'

/** A figure with its unit quiet behind it. */
export function Quantity({ quantity, unit, sign = false }: { quantity: number; unit: StockUnit; sign?: boolean }) {
  const [figure, word] = useUnits().parts(quantity, unit)
  return (
    <span className="figures" style={{ whiteSpace: 'nowrap' }}>
      {sign && quantity > 0 ? '+' : ''}
      {figure}
      <span className="unit"> {word}</span>
    </span>
  )
}
