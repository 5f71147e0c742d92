import type { ItemIdentity } from '@tessellum/contract/stock'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { ItemCell } from '../frame/item-cell'
import { itemWords } from './item-words'
import { Swatch } from './swatch'

interface NamedItemProps {
  readonly item: ItemIdentity
  /** More of it, beneath. */
  readonly children?: ReactNode
}

/** An item in a row of figures: its swatch, its colour, which opens it, and what tells it from others of that colour. */
export const NamedItem = ({ item, children }: NamedItemProps) => (
  <ItemCell
    swatch={<Swatch item={item} size={28} />}
    under={
      <>
        {itemWords(item).join(', ')}
        {children}
      </>
    }
  >
    <Link to={`/stock/${item.id}`}>{item.colourName}</Link>
  </ItemCell>
)
