import type { Cursor } from '../notation/cursor'

/** `as bail` behind a list: the name under which what was picked up can be found again. */
export const readMark = (cursor: Cursor): string | undefined =>
  cursor.take('Word', 'as') ? cursor.expect('Word', 'a name', 'For example: loop 9C as bail.').text : undefined
