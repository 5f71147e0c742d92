import type { Item, Line } from '../notation/line'

/** How many words, numbers, letters and marks a line has: what somebody reads, whatever its length in characters. A bracket is one. */
export const tokensIn = (line: Line): number => 1 + count(line.items)

const count = (items: readonly Item[]): number => items.reduce((sum, item) => sum + 1 + count(item.items), 0)
