import type { StockUnit } from '@tessellum/contract/stock'
import { useUnits } from '../settings/use-units'
import styles from './quantity-cell.module.css'

/** A figure with its unit quiet behind it. */
export function Quantity({ quantity, unit, sign = false }: { quantity: number; unit: StockUnit; sign?: boolean }) {
  const [figure, word] = useUnits().parts(quantity, unit)
  return (
    <span className={`figures ${styles.quantity}`}>
      {sign && quantity > 0 ? '+' : ''}
      {figure}
      <span className={styles.unit}> {word}</span>
    </span>
  )
}
