/** Records as a table, such as customers: each field a column, read by the record's own schema. */
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

/** An empty cell is what is not known. */
export const numberColumn = <Saved>(head: string, field: keyof Saved & string): Column<Saved> => ({
  ...textColumn(head, field),
  from: (text) => (text === '' ? null : Number(text.replace(',', '.'))),
})

/** Kept in minor units of money, and written in whole ones. */
export const moneyColumn = <Saved>(head: string, field: keyof Saved & string): Column<Saved> => ({
  head,
  field,
  to: (saved) => (Number(saved[field]) / 100).toFixed(2),
  from: (text) => (text === '' ? 0 : Math.round(Number(text.replace(',', '.')) * 100)),
})

export const yesColumn = <Saved>(head: string, field: keyof Saved & string): Column<Saved> => ({
  head,
  field,
  to: (saved) => (saved[field] ? 'yes' : 'no'),
  from: (text) => /^(yes|y|true|1|x|ja)$/i.test(text),
})

export interface TableFault {
  readonly row: number
  readonly column: string
  readonly message: string
}

/** Whether two say the same in every column. */
export const sameRecord = <Saved>(columns: readonly Column<Saved>[], one: Saved, other: Saved): boolean =>
  columns.every(({ to }) => to(one) === to(other))

export const writeRecords = <Saved>(columns: readonly Column<Saved>[], all: readonly Saved[]): string[][] =>
  plainCells([columns.map(({ head }) => head), ...all.map((saved) => columns.map(({ to }) => to(saved)))])

/** As it was before `plainCells`. */
const asTyped = (cell: string) => cell.trim().replace(/^'(?=[=+\-@\t])/, '')

/** @returns what the rows say, and what is wrong with them; rows are counted as the file has them, the head first */
export function readRecords<Schema extends z.ZodType>(
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
