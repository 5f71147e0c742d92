/**
 * Idempotency keys of requests whose outcome this page does not know: sent twice, because the line broke or the page was loaded again, the same
 * request carries the same key, and is done once. The browser's tab remembers them for as long as somebody would try the same again.
 */
const keptMs = 30 * 60_000
/** Longer ones, such as a whole pattern's text, are remembered by the page only. */
const maxLetters = 4000
const storedAs = 'undecided'

interface Undecided {
  readonly key: string
  readonly at: number
}

const here = new Map<string, Undecided>(stored())

function stored(): [string, Undecided][] {
  try {
    return JSON.parse(sessionStorage.getItem(storedAs) ?? '[]')
  } catch {
    return []
  }
}

function store(): void {
  try {
    sessionStorage.setItem(storedAs, JSON.stringify([...here].filter(([what]) => what.length <= maxLetters)))
  } catch {
    // Without room to remember them they last as long as the page.
  }
}

/** @param what everything that the request says, and who sends it */
export function keyOf(what: string): string {
  const now = Date.now()
  for (const [each, { at }] of here) if (now - at > keptMs) here.delete(each)
  const { key } = here.get(what) ?? { key: crypto.randomUUID() }
  here.set(what, { key, at: now })
  store()
  return key
}

/** The outcome is known: whoever asks the same again means it again. */
export function decided(what: string): void {
  here.delete(what)
  store()
}
