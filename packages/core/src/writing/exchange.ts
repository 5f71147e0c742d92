/**
 * Words exchanged for their opposites, with capitals as they stood: each pair both ways, in one pass, so that nothing is exchanged twice.
 *
 * @param found what may be exchanged, as a word of one of the pairs
 */
export function exchanged(text: string, found: RegExp, pairs: readonly (readonly [string, string])[]): string {
  const other = new Map(pairs.flatMap(([a, b]) => [[a, b] as const, [b, a] as const]))
  return text.replace(found, (word) => {
    const instead = other.get(word.toLowerCase())
    if (instead === undefined) return word
    return word.charAt(0) === word.charAt(0).toLowerCase()
      ? instead
      : instead.charAt(0).toUpperCase() + instead.slice(1)
  })
}
