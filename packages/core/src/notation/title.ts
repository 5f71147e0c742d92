/** The title a pattern's text gives it, without reading the rest; what to call one that gives none. */
export function titleOf(source: string): string {
  const line = /^[ \t]*pattern[ \t]+([^\n#]*)/m.exec(source)?.[1]?.replace(/\s+/g, ' ').trim()
  return line ? line.slice(0, 120) : 'Pattern without a name'
}

/** The text with another title; a text that gives none gets it as its first line. */
export function withTitle(source: string, title: string): string {
  const said = title.replace(/[\n#]/g, ' ').replace(/\s+/g, ' ').trim()
  const line = /^([ \t]*pattern)\b([ \t]*)([^\n#]*?)([ \t]*)(?=#|$)/m
  return line.test(source)
    ? source.replace(line, (_, word: string, __, ___, space: string) => `${word} ${said}${space}`)
    : `pattern ${said}\n${source}`
}
