/** Tables as files: CSV in whatever encoding and with whatever separator, and XLSX; in, and out again. Runs in a worker. */
import { parse } from 'csv-parse/sync'
import { stringify } from 'csv-stringify/sync'
import ExcelJS from 'exceljs'

/** What is wrong with a file as a whole, in words for whoever sent it. */
export class BadTable extends Error {}

export interface Table {
  readonly rows: string[][]
  /** Cells are divided by something else, or not at all: a comma in a number is a decimal comma. */
  readonly commas: boolean
}

const maxRows = 20_000

const starts = (bytes: Uint8Array, ...with_: number[]) => with_.every((byte, i) => bytes[i] === byte)

/** @throws BadTable */
export async function readTable(bytes: Uint8Array): Promise<Table> {
  if (bytes.length === 0) throw new BadTable('The file is empty.')
  if (starts(bytes, 0xd0, 0xcf, 0x11, 0xe0))
    throw new BadTable('This is an old spreadsheet: save it as XLSX or CSV, and choose that.')
  const table = starts(bytes, 0x50, 0x4b, 0x03, 0x04) ? await readWorkbook(bytes) : readText(decode(bytes))
  if (table.rows.length > maxRows + 1)
    throw new BadTable(
      `The file has ${table.rows.length.toLocaleString('en-GB')} rows; at most ${maxRows.toLocaleString('en-GB')} are read at once. Divide it.`,
    )
  return table
}

/** UTF-8 and UTF-16 by their marks; what is not UTF-8 is taken for the Windows letters of western Europe. */
function decode(bytes: Uint8Array): string {
  if (starts(bytes, 0xff, 0xfe)) return new TextDecoder('utf-16le').decode(bytes)
  if (starts(bytes, 0xfe, 0xff)) return new TextDecoder('utf-16be').decode(bytes)
  if (bytes.subarray(0, 4096).includes(0)) throw new BadTable('This is neither CSV nor XLSX.')
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

function readText(text: string): Table {
  // Some spreadsheets name the separator in a line of its own.
  const [, named] = /^sep=(.)\r?\n/.exec(text) ?? []
  const body = named ? text.slice(text.indexOf('\n') + 1) : text
  const [head = ''] = body.split(/\r?\n/, 1)
  const unquoted = head.replace(/"[^"]*"/g, '')
  const times = (mark: string) => unquoted.split(mark).length - 1
  const delimiter = named ?? [';', '\t', ','].reduce((best, mark) => (times(mark) > times(best) ? mark : best), ',')
  try {
    const rows = parse(body, { delimiter, relax_column_count: true, skip_empty_lines: false }) as string[][]
    return { rows, commas: delimiter !== ',' }
  } catch (error) {
    const { lines, message } = error as { lines?: number; message: string }
    throw new BadTable(`The file cannot be read from line ${lines ?? '?'} on: ${message.replace(/^.*?: /, '')}`)
  }
}

async function readWorkbook(bytes: Uint8Array): Promise<Table> {
  const workbook = new ExcelJS.Workbook()
  try {
    await workbook.xlsx.load(bytes as unknown as ExcelJS.Buffer)
  } catch {
    throw new BadTable('The spreadsheet cannot be opened: it is damaged, or locked with a password.')
  }
  const [sheet] = workbook.worksheets
  if (!sheet) throw new BadTable('The spreadsheet has no sheet.')
  const rows: string[][] = []
  sheet.eachRow({ includeEmpty: true }, (row, number) => {
    if (number > maxRows + 2) return
    const cells: string[] = []
    row.eachCell({ includeEmpty: true }, (cell, column) => {
      if (column <= 200) cells[column - 1] = cellText(cell.value)
    })
    rows.push(Array.from(cells, (cell) => cell ?? ''))
  })
  return { rows, commas: false }
}

function cellText(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return ''
  if (value instanceof Date) return value.toISOString().slice(0, 10)
  if (typeof value !== 'object') return String(value)
  if ('richText' in value) return value.richText.map(({ text }) => text).join('')
  if ('text' in value) return cellText(value.text as ExcelJS.CellValue)
  if ('result' in value) return cellText(value.result as ExcelJS.CellValue)
  return ''
}

/** @param rows the heads first */
export async function writeTable(
  rows: readonly (readonly string[])[],
  format: 'csv' | 'xlsx',
  name: string,
): Promise<Uint8Array> {
  if (format === 'csv') return new TextEncoder().encode(`\ufeff${stringify(rows as string[][])}`)
  const workbook = new ExcelJS.Workbook()
  const sheet = workbook.addWorksheet(name.slice(0, 31), { views: [{ state: 'frozen', ySplit: 1 }] })
  // A cell that is nothing but a number is one, so that a spreadsheet can add it up.
  for (const [i, row] of rows.entries())
    sheet.addRow(
      row.map((cell) => (i > 0 && /^-?\d{1,12}(\.\d+)?$/.test(cell) && !/^0\d/.test(cell) ? Number(cell) : cell)),
    )
  sheet.getRow(1).font = { bold: true }
  return new Uint8Array(await workbook.xlsx.writeBuffer())
}
