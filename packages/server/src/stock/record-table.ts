/** Records as a table, such as customers: each field a column, read by the record's own schema. */

import type { RecordFileOutcome } from '@tessellum/contract/record-file'
import { readNumber } from '@tessellum/core/measure/read-number'
import { plainCells } from '@tessellum/core/stock/stock-spreadsheet'
import type { z } from 'zod'

interface Column<Saved> {
  readonly head: string
  readonly field: keyof Saved & string
  readonly to: (saved: Saved) => string
  readonly from: (text: string) => unknown
}

export const textColumn = <Saved>(head: string, field: keyof Saved & string): Column<Saved> => ({
  head,
  field,
  to: (saved) => String(saved[field] ?? ''),
  from: (text) => text,
})

/** What is no number, or could be read in two ways, is refused by the schema of its row. */
function numberIn(text: string): number {
  const read = readNumber(text, false)
  return typeof read === 'number' ? read : Number.NaN
}

/** An empty cell is what is not known. */
export const numberColumn = <Saved>(head: string, field: keyof Saved & string): Column<Saved> => ({
  ...textColumn(head, field),
  from: (text) => (text === '' ? null : numberIn(text)),
})

/** Kept in minor units of money, and written in whole ones. */
export const moneyColumn = <Saved>(head: string, field: keyof Saved & string): Column<Saved> => ({
  head,
  field,
  to: (saved) => (Number(saved[field]) / 100).toFixed(2),
  from: (text) => (text === '' ? 0 : Math.round(numberIn(text) * 100)),
})

export const yesColumn = <Saved>(head: string, field: keyof Saved & string): Column<Saved> => ({
  head,
  field,
  to: (saved) => (saved[field] ? 'yes' : 'no'),
  from: (text) => /^(yes|y|true|1|x|ja)$/i.test(text),
})

interface TableFault {
  readonly row: number
  readonly column: string
  readonly message: string
}

/** Whether two say the same in every column. */
const sameRecord = <Saved>(columns: readonly Column<Saved>[], one: Saved, other: Saved): boolean =>
  columns.every(({ to }) => to(one) === to(other))

export const writeRecords = <Saved>(columns: readonly Column<Saved>[], all: readonly Saved[]): string[][] =>
  plainCells([columns.map(({ head }) => head), ...all.map((saved) => columns.map(({ to }) => to(saved)))])

/** As it was before `plainCells`. */
const asTyped = (cell: string) => cell.trim().replace(/^'(?=[=+\-@\t])/, '')

/** @returns what the rows say, and what is wrong with them; rows are counted as the file has them, the head first */
function readRecords<Schema extends z.ZodType>(
  columns: readonly Column<z.output<Schema>>[],
  schema: Schema,
  [heads = [], ...rows]: readonly (readonly string[])[],
): { read: z.output<Schema>[]; faults: TableFault[] } {
  const at = new Map(heads.map((title, i) => [title.trim().toLowerCase(), i] as const))
  const [first] = columns
  if (first && !at.has(first.head))
    return {
      read: [],
      faults: [{ row: 1, column: first.head, message: `The first row has the heads; "${first.head}" is missing.` }],
    }
  const faults: TableFault[] = []
  const read = rows.flatMap((cells, i): z.output<Schema>[] => {
    if (cells.every((cell) => cell.trim() === '')) return []
    const said = columns.flatMap(({ head, field, from }) => {
      const column = at.get(head)
      return column === undefined ? [] : [[field, from(asTyped(cells[column] ?? ''))]]
    })
    const checked = schema.safeParse(Object.fromEntries(said))
    if (checked.success) return [checked.data]
    for (const { path, message } of checked.error.issues) {
      const [field = ''] = path.map(String)
      faults.push({ row: i + 2, column: columns.find((each) => each.field === field)?.head ?? field, message })
    }
    return []
  })
  return { read, faults }
}

interface Keeping<Schema extends z.ZodType, Row extends z.output<Schema>> {
  readonly columns: readonly Column<z.output<Schema>>[]
  readonly schema: Schema
  /** What makes two rows the same record. */
  readonly keyOf: (saved: z.output<Schema>) => string
  readonly kept: readonly Row[]
}

type Change<Saved, Row> =
  | { readonly type: 'add'; readonly given: Saved }
  | { readonly type: 'change'; readonly row: Row; readonly given: Saved }

/**
 * What the rows of a file would change. A row that is there more than once counts once, as the last of them says.
 * @returns no changes where a row has a fault: all of a file is taken, or nothing
 */
export function changesOf<Schema extends z.ZodType, Row extends z.output<Schema>>(
  rows: readonly (readonly string[])[],
  { columns, schema, keyOf, kept }: Keeping<Schema, Row>,
): { changes: Change<z.output<Schema>, Row>[]; outcome: RecordFileOutcome } {
  const { read, faults } = readRecords(columns, schema, rows)
  const known = new Map(kept.map((row) => [keyOf(row), row]))
  const wanted = [...new Map(read.map((given) => [keyOf(given), given])).values()]
  const all = wanted.flatMap((given): Change<z.output<Schema>, Row>[] => {
    const row = known.get(keyOf(given))
    if (!row) return [{ type: 'add', given }]
    return sameRecord(columns, row, given) ? [] : [{ type: 'change', row, given }]
  })
  const added = all.filter(({ type }) => type === 'add').length
  return {
    changes: faults.length > 0 ? [] : all,
    outcome: {
      rows: read.length,
      added,
      changed: all.length - added,
      same: wanted.length - all.length,
      faults,
      done: false,
    },
  }
}
