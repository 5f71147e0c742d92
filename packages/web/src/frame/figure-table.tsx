import type { ComponentProps } from 'react'
import styles from './figure-table.module.css'

interface FigureTableProps extends Omit<ComponentProps<'table'>, 'className'> {
  /** Its columns hold words: they begin at the left. */
  readonly words?: boolean
  /** Its cells have several lines each: they begin at the same height. */
  readonly top?: boolean
  /** A sheet of its own on the page. */
  readonly sheet?: boolean
}

/** The table for whatever is short enough to be seen as a whole: one row a thing, figures one beneath the other. */
export const FigureTable = ({ words = false, top = false, sheet = false, ...table }: FigureTableProps) => (
  <table
    {...table}
    className={`${styles.table} ${words ? styles.words : ''} ${top ? styles.top : ''} ${sheet ? 'sheet' : ''}`}
  />
)

/** Marks a row: the one that is meant, or differs. */
export const meantRow = styles.meant ?? ''
