/** How the width of a page is shared out among its panes, kept in this browser. */

/** Widths as shares of all of them: a window of another width is shared out alike. */
export function sharesOf(widths: readonly number[]): readonly number[] {
  const all = widths.reduce((sum, each) => sum + each, 0)
  return widths.map((each) => each / all)
}

/**
 * The bar between two panes, moved: what one gains the other loses, and neither becomes narrower than it may be.
 *
 * @param bar counted from 0: it stands after the pane of that number
 * @param by to the right, px
 * @param width of all panes, px
 */
export function barMoved(
  shares: readonly number[],
  least: readonly number[],
  bar: number,
  by: number,
  width: number,
): readonly number[] {
  const [before, after] = [shares[bar] ?? 0, shares[bar + 1] ?? 0]
  const [least1, least2] = [(least[bar] ?? 0) / width, (least[bar + 1] ?? 0) / width]
  // In a window that is too narrow for both nothing is moved. Where both just fit, rounding does not decide.
  if (least1 + least2 > before + after + 1e-9) return shares
  const next = Math.min(Math.max(before + by / width, least1), before + after - least2)
  return shares.map((each, i) => (i === bar ? next : i === bar + 1 ? before + after - next : each))
}

const keptAt = (name: string) => `panes:${name}`

export function keepShares(name: string, shares: readonly number[], kept: Storage = localStorage): void {
  kept.setItem(keptAt(name), JSON.stringify(shares))
}

/** As they were left; as is usual where they never were dragged, or what was kept is of other panes. */
export function keptShares(name: string, usual: readonly number[], kept: Storage = localStorage): readonly number[] {
  try {
    const shares: unknown = JSON.parse(kept.getItem(keptAt(name)) ?? 'null')
    const fits =
      Array.isArray(shares) &&
      shares.length === usual.length &&
      shares.every((each) => typeof each === 'number' && each >= 0 && each <= 1) &&
      Math.abs(shares.reduce((sum, each) => sum + each, 0) - 1) < 0.01
    return fits ? (shares as number[]) : sharesOf(usual)
  } catch {
    return sharesOf(usual)
  }
}
