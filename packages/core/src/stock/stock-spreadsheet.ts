/** Stock as a table that a spreadsheet can hold: one row for each lot, or for an item that has none; read with every fault told by row and column. */
import { readNumber } from '../measure/read-number'
import { perSpoken, spokenUnit } from './quantity'

type Unit = 'mg' | 'piece' | 'mm'
export const sheetCategories = ['bead', 'stone', 'thread', 'other'] as const

export interface SheetPack {
  readonly amount: number
  readonly price: number
  readonly leadDays: number
}

export interface SheetItem {
  readonly code: string
  readonly category: (typeof sheetCategories)[number]
  readonly maker: string
  readonly kind: string
  readonly size: string
  readonly colourCode: string
  readonly colourName: string
  readonly finish: string
  readonly colour: string
  readonly unit: Unit
  readonly place: string
  readonly reorderBelow: number
  readonly barcode: string | null
  readonly cautions: string
  readonly figures: {
    readonly lengthMm: number
    readonly acrossMm: number
    readonly boreMm: number
    readonly massMg: number
    readonly contact: number
    readonly bores: 1 | 2
  } | null
  readonly packs: readonly SheetPack[]
}

export interface SheetLot {
  readonly code: string
  readonly receivedOn: string
  readonly place: string
  readonly supplier: string
  /** Of one base unit, in minor units of money. */
  readonly unitCost: number | null
  readonly quantity: number
}

export interface SheetFault {
  /** As a spreadsheet counts them: the heads are row 1. */
  readonly row: number
  readonly column: string
  readonly message: string
}

export interface ReadSheet {
  readonly rows: number
  readonly items: readonly { readonly item: SheetItem; readonly lots: readonly SheetLot[]; readonly row: number }[]
  readonly faults: readonly SheetFault[]
}

const heads = [
  'code',
  'category',
  'maker',
  'kind',
  'size',
  'colour code',
  'colour name',
  'finish',
  'colour',
  'unit',
  'place',
  'reorder below',
  'barcode',
  'cautions',
  'length mm',
  'across mm',
  'hole mm',
  'mg per bead',
  'contact',
  'bores',
  'packs',
  'lot',
  'received',
  'lot place',
  'supplier',
  'cost per unit',
  'in lot',
] as const
type Head = (typeof heads)[number]
const needed: readonly Head[] = ['code', 'category', 'maker', 'kind', 'colour name', 'colour', 'unit']
const longest: Partial<Record<Head, number>> = {
  code: 40,
  maker: 80,
  kind: 60,
  size: 40,
  'colour code': 40,
  'colour name': 80,
  finish: 60,
  place: 60,
  barcode: 60,
  cautions: 200,
  lot: 60,
  'lot place': 60,
  supplier: 80,
}

/** Many shops keep their lists in spreadsheets that would take these for formulas. */
const formula = /^[=+\-@\t]/

const text = (value: string) => (formula.test(value) ? `'${value}` : value)
/** Any table for a spreadsheet: nothing in it is taken for a formula. */
export const plainCells = (rows: readonly (readonly string[])[]): string[][] => rows.map((row) => row.map(text))

const money = (minor: number) => (minor / 100).toFixed(2)
const spoken = (quantity: number, unit: Unit) => String(quantity / perSpoken[unit])

export function writeSheet(
  items: readonly { readonly item: SheetItem; readonly lots: readonly SheetLot[] }[],
): string[][] {
  const rows: string[][] = [[...heads]]
  for (const { item, lots } of items) {
    const { figures, unit } = item
    const own = [
      text(item.code),
      item.category,
      text(item.maker),
      text(item.kind),
      text(item.size),
      text(item.colourCode),
      text(item.colourName),
      text(item.finish),
      item.colour,
      spokenUnit[unit],
      text(item.place),
      spoken(item.reorderBelow, unit),
      text(item.barcode ?? ''),
      text(item.cautions),
      ...(figures
        ? [figures.lengthMm, figures.acrossMm, figures.boreMm, figures.massMg, figures.contact, figures.bores].map(
            String,
          )
        : ['', '', '', '', '', '']),
      item.packs
        .map(
          ({ amount, price, leadDays }) =>
            `${spoken(amount, unit)} ${spokenUnit[unit]} ${money(price)} ${leadDays} days`,
        )
        .join('; '),
    ]
    for (const lot of lots)
      rows.push([
        ...own,
        text(lot.code),
        lot.receivedOn,
        text(lot.place),
        text(lot.supplier),
        lot.unitCost === null ? '' : String(Number(((lot.unitCost * perSpoken[unit]) / 100).toFixed(6))),
        spoken(lot.quantity, unit),
      ])
    if (lots.length === 0) rows.push([...own, '', '', '', '', '', ''])
  }
  return rows
}

/** @param table rows of cells, the heads first @param commas see readNumber */
export function readSheet(table: readonly (readonly string[])[], commas: boolean): ReadSheet {
  const faults: SheetFault[] = []
  const found = new Map<Head, number>()
  const [first = []] = table
  for (const [at, cell] of first.entries()) {
    const name = cell
      .trim()
      .toLowerCase()
      .replace(/[\s_]+/g, ' ')
    if (name === '') continue
    const head = heads.find((each) => each === name)
    if (!head)
      faults.push({
        row: 1,
        column: cell.trim(),
        message: `There is no column "${cell.trim()}". Take it out, or name it one of: ${heads.join(', ')}.`,
      })
    else if (found.has(head))
      faults.push({ row: 1, column: head, message: `There are two columns "${head}". Keep one.` })
    else found.set(head, at)
  }
  for (const head of needed)
    if (!found.has(head)) faults.push({ row: 1, column: head, message: `The column "${head}" is missing.` })
  if (faults.length > 0) return { rows: 0, items: [], faults }

  const items = new Map<string, { item: SheetItem; lots: SheetLot[]; row: number }>()
  const barcodes = new Map<string, string>()
  let rows = 0
  for (const [at, cells] of table.entries()) {
    if (at === 0 || cells.every((cell) => cell.trim() === '')) continue
    rows++
    const row = at + 1
    const read = new RowReader(cells, found, row, commas, faults)
    const before = faults.length
    const item = readItem(read)
    const lot = readLot(read, item.unit, item.place)
    if (faults.length > before) continue
    const known = items.get(item.code)
    if (!known) items.set(item.code, { item, lots: lot ? [lot] : [], row })
    else if (JSON.stringify(known.item) !== JSON.stringify(item)) {
      const [what] =
        Object.entries(item).find(
          ([key, value]) => JSON.stringify(value) !== JSON.stringify(known.item[key as keyof SheetItem]),
        ) ?? []
      faults.push({ row, column: 'code', message: `${item.code} has another ${what} here than in row ${known.row}.` })
    } else if (!lot) faults.push({ row, column: 'code', message: `${item.code} stands in row ${known.row} already.` })
    else if (known.lots.some((each) => each.code === lot.code && each.place === lot.place))
      faults.push({ row, column: 'lot', message: `Lot ${lot.code} of ${item.code} stands here twice.` })
    else known.lots.push(lot)
    if (item.barcode) {
      const other = barcodes.get(item.barcode)
      if (other !== undefined && other !== item.code)
        faults.push({ row, column: 'barcode', message: `${item.barcode} is ${other}'s barcode too.` })
      barcodes.set(item.barcode, item.code)
    }
  }
  return { rows, items: [...items.values()], faults }
}

class RowReader {
  constructor(
    private readonly cells: readonly string[],
    private readonly found: ReadonlyMap<Head, number>,
    readonly row: number,
    private readonly commas: boolean,
    private readonly faults: SheetFault[],
  ) {}

  fault(column: Head, message: string): void {
    this.faults.push({ row: this.row, column, message })
  }

  text(head: Head): string {
    const at = this.found.get(head)
    const cell = (at === undefined ? '' : (this.cells[at] ?? '')).trim()
    const plain = /^'[=+\-@\t]/.test(cell) ? cell.slice(1) : cell
    const most = longest[head]
    if (plain === '' && needed.includes(head)) this.fault(head, 'This cell may not be empty.')
    if (most !== undefined && plain.length > most) this.fault(head, `At most ${most} letters.`)
    return plain
  }

  one<Choice extends string>(head: Head, choices: readonly Choice[]): Choice {
    const typed = this.text(head).toLowerCase()
    const choice = choices.find((each) => each === typed)
    if (!choice && typed !== '') this.fault(head, `"${typed}" is none of: ${choices.join(', ')}.`)
    return choice ?? (choices[0] as Choice)
  }

  /** @returns undefined for an empty cell */
  number(head: Head, least: 'above 0' | 'from 0'): number | undefined {
    const typed = this.text(head)
    if (typed === '') return undefined
    const value = readNumber(typed, this.commas)
    if (typeof value === 'string') {
      this.fault(head, value)
      return 0
    }
    if (least === 'above 0' ? value <= 0 : value < 0) this.fault(head, `${typed} is below what it can be.`)
    if (value > 1_000_000_000) this.fault(head, 'That is more than a shop holds.')
    return value
  }

  /** In base units. */
  quantity(head: Head, unit: Unit): number | undefined {
    const value = this.number(head, 'from 0')
    if (value === undefined) return undefined
    const whole = Math.round(value * perSpoken[unit])
    if (Math.abs(value * perSpoken[unit] - whole) > 1e-6)
      this.fault(
        head,
        unit === 'piece'
          ? 'Pieces are whole.'
          : `No finer than a thousandth of ${unit === 'mg' ? 'a gram' : 'a metre'}.`,
      )
    return whole
  }
}

const units: readonly Unit[] = ['mg', 'piece', 'mm']

function readItem(read: RowReader): SheetItem {
  const category = read.one('category', sheetCategories)
  const said = read.one('unit', Object.values(spokenUnit))
  const unit = units.find((each) => spokenUnit[each] === said) as Unit
  const colour = read.text('colour').toLowerCase()
  if (colour !== '' && !/^#[0-9a-f]{6}$/.test(colour)) read.fault('colour', 'A colour is written like #2f5d50.')
  const measures = (['length mm', 'across mm', 'hole mm', 'mg per bead'] as const).map((head) => {
    const value = read.number(head, 'above 0')
    if (category === 'bead' && value === undefined) read.fault(head, 'A bead has its measures and what one weighs.')
    return value ?? 0
  })
  const [lengthMm = 0, acrossMm = 0, boreMm = 0, massMg = 0] = measures
  const bores = read.number('bores', 'above 0') ?? 1
  if (bores !== 1 && bores !== 2) read.fault('bores', 'A bead has 1 or 2.')
  const contact = read.number('contact', 'above 0') ?? 2.5
  return {
    code: read.text('code'),
    category,
    maker: read.text('maker'),
    kind: read.text('kind'),
    size: read.text('size'),
    colourCode: read.text('colour code'),
    colourName: read.text('colour name'),
    finish: read.text('finish'),
    colour,
    unit,
    place: read.text('place'),
    reorderBelow: read.quantity('reorder below', unit) ?? 0,
    barcode: read.text('barcode') || null,
    cautions: read.text('cautions'),
    figures: category === 'bead' ? { lengthMm, acrossMm, boreMm, massMg, contact, bores: bores === 2 ? 2 : 1 } : null,
    packs: readPacks(read, unit),
  }
}

function readPacks(read: RowReader, unit: Unit): SheetPack[] {
  const typed = read.text('packs')
  const packs = typed
    .split(';')
    .filter((each) => each.trim() !== '')
    .flatMap((each) => {
      const [, amount = '', said, price = '', leadDays = ''] =
        /^\s*([\d.,]+)\s*(g|pcs|m)\s+([\d.,]+)\s+(\d{1,3})\s+days?\s*$/.exec(each) ?? []
      const [much, cost] = [readNumber(amount, true), readNumber(price, true)]
      if (typeof much === 'string' || typeof cost === 'string' || said !== spokenUnit[unit]) {
        read.fault('packs', `"${each.trim()}" is no pack: write it like "8 ${spokenUnit[unit]} 3.60 4 days".`)
        return []
      }
      return [{ amount: Math.round(much * perSpoken[unit]), price: Math.round(cost * 100), leadDays: Number(leadDays) }]
    })
  if (packs.some(({ amount }) => amount < 1)) read.fault('packs', 'A pack holds something.')
  if (new Set(packs.map(({ amount }) => amount)).size < packs.length)
    read.fault('packs', 'Two packs have the same size.')
  return packs
}

function readLot(read: RowReader, unit: Unit, place: string): SheetLot | undefined {
  const code = read.text('lot')
  const quantity = read.quantity('in lot', unit)
  if (code === '') {
    if (quantity !== undefined) read.fault('lot', 'What is in a lot needs the lot’s code.')
    return undefined
  }
  const receivedOn = read.text('received')
  if (
    !/^\d{4}-\d{2}-\d{2}$/.test(receivedOn) ||
    Number.isNaN(Date.parse(receivedOn)) ||
    new Date(receivedOn).toISOString().slice(0, 10) !== receivedOn
  )
    read.fault('received', 'A day is written like 2026-11-30.')
  if (quantity === undefined) read.fault('in lot', 'Say how much is in the lot.')
  const cost = read.number('cost per unit', 'from 0')
  return {
    code,
    receivedOn,
    place: read.text('lot place') || place,
    supplier: read.text('supplier'),
    unitCost: cost === undefined ? null : (cost * 100) / perSpoken[unit],
    quantity: quantity ?? 0,
  }
}
