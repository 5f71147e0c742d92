import type { DrawnIn } from '@tessellum/contract/colourways'
import styles from './drawn-plate.module.css'
import { KeptDrawing } from './kept-drawing'

/** A pattern's picture in a row of a list; what it shows is told in words beside it. */
export const DrawnPlate = ({ title, drawing }: { title: string; drawing: DrawnIn | null }) => (
  <span className={styles.plate} aria-hidden>
    {drawing && <KeptDrawing title={title} {...drawing} />}
  </span>
)
