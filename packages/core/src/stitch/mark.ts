import type { Cursor } from '../notation/cursor'
import { LineFault } from '../notation/fault'

/** Words that mean something where a place is named. */
const reserved: Readonly<Record<string, string>> = {
  front: 'the front edge',
  back: 'the back edge',
  new: 'what was picked up last',
  any: 'whichever is nearest',
  the: 'nothing of its own',
}

/** A name under which what was picked up can be found again; `all`: with what has borne it before. */
export interface Mark {
  readonly name: string
  readonly all: boolean
}

/** `as bail` behind a list; `as tip, all` collects. */
export function readMark(cursor: Cursor): Mark | undefined {
  if (!cursor.take('Word', 'as')) return undefined
  const name = cursor.expect('Word', 'a name', 'For example: loop 9C as bail.')
  const meant = Object.hasOwn(reserved, name.text) ? reserved[name.text] : undefined
  if (meant)
    throw new LineFault(
      name,
      `"${name.text}" cannot be a name: it means ${meant}.`,
      `Another name would do: as my_${name.text}.`,
    )
  const all = cursor.peek()?.kind === 'Comma' && cursor.peek(1)?.text === 'all'
  if (all) {
    cursor.next()
    cursor.next()
  }
  return { name: name.text, all }
}
