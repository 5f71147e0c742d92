/** Lists by arrows: from a row's link or button to the same of the row above or below. */

const rows = '.rows > *, tbody tr, main article'
const reachable = 'a[href], button:not([disabled])'

/** What can be reached in a row; a row that is a link is that. */
const inRow = (row: Element): HTMLElement[] => [
  ...(row.matches(reachable) ? [row as HTMLElement] : []),
  ...row.querySelectorAll<HTMLElement>(reachable),
]

/** Rows of all lists of the page, in their order; what holds other rows is none. */
const allRows = (within: ParentNode): Element[] =>
  [...within.querySelectorAll(rows)].filter((row) => row.querySelector(rows) === null && inRow(row).length > 0)

/** @returns where the focus goes for a key that is pressed on `target`; undefined where that is no row's, or there is no row further on */
export function rowBeside(target: Element, key: string, within: ParentNode): HTMLElement | undefined {
  if (!target.matches(reachable)) return undefined
  const row = target.closest(rows)
  if (!row) return undefined
  const all = allRows(within)
  const at = all.indexOf(row)
  if (at < 0) return undefined
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[key]
  const next = to === undefined ? undefined : all[to]
  if (!next) return undefined
  const there = inRow(next)
  return there[Math.min(inRow(row).indexOf(target as HTMLElement), there.length - 1)]
}
