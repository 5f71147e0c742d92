import type { Item } from '@tessellum/contract/stock'
import type { SpokenUnits } from '@tessellum/core/stock/spoken-units'
import styles from './item-option.module.css'
import { itemWords } from './item-words'
import { Swatch } from './swatch'

interface ItemOptionProps {
  readonly item: Item
  readonly units: Pick<SpokenUnits, 'quantity'>
  /** In the field, where there is little room, once it is chosen. */
  readonly chosen?: boolean
}

/** An item in a list to choose from: a colour's name alone tells nobody which tube is meant. */
export function ItemOption({ item, units, chosen = false }: ItemOptionProps) {
  const { colourCode, colourName, onHand, reserved, unit } = item
  const free = `${units.quantity(onHand - reserved, unit)} free`
  const told = chosen ? [colourCode, free] : [...itemWords(item), free]
  return (
    <span className={styles.option}>
      <Swatch item={item} size={20} />
      <span>{colourName}</span>
      <span className="quiet">{told.filter(Boolean).join(', ')}</span>
    </span>
  )
}
