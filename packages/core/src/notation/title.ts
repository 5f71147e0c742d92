/** The title a pattern's text gives it, without reading the rest; what to call one that gives none. */
export function titleOf(source: string): string {
  const line = /^[ \t]*pattern[ \t]+([^\n#]*)/m.exec(source)?.[1]?.replace(/\s+/g, ' ').trim()
  return line ? line.slice(0, 120) : 'Pattern without a name'
}
