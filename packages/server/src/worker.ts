import type { Item } from '@tessellum/contract/stock'
import type { StockFileOutcome } from '@tessellum/contract/stock-file'
import { allocateKits } from '@tessellum/core/allocation/allocate-kits'
import type { Allocation } from '@tessellum/core/allocation/allocation'
import { packsFor } from '@tessellum/core/allocation/buy'
import { shortagesOf } from '@tessellum/core/allocation/shortages'
import { measuresOf } from '@tessellum/core/desk/grade'
import { sceneOf } from '@tessellum/core/drawing/scene'
import { viewOf } from '@tessellum/core/drawing/view'
import { type Choices, evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { usualSize } from '@tessellum/core/evaluate/usual-size'
import { type FormedPattern, formPattern } from '@tessellum/core/form/form-pattern'
import { billOf, misfitWords } from '@tessellum/core/kit/bill'
import { chosenIn } from '@tessellum/core/kit/choice'
import { levelOf } from '@tessellum/core/report/level'
import { minutesOf } from '@tessellum/core/report/minutes'
import type { Report } from '@tessellum/core/report/report'
import { type ReadSheet, readSheet, writeSheet } from '@tessellum/core/stock/stock-spreadsheet'
import { candidateOf } from '@tessellum/core/substitute/candidate'
import { substitutesFor } from '@tessellum/core/substitute/substitutes'
import { writeEdition } from '@tessellum/core/writing/edition'
import { LRUCache } from 'lru-cache'
import { takeArchive } from './archive/take'
import { connect, type Database } from './database/connect'
import type { PictureFiles } from './documents/picture-files'
import { keepFormsIn } from './forms/form-files'
import { asProblem } from './http/errors'
import { runOnce } from './idempotency/run-once'
import { solver } from './jobs/solver'
import { type Answered, checkpoint, type Job, type TaskControl } from './jobs/task-control'
import type { Kit, TaskName, Tasks } from './jobs/tasks'
import { readPictures } from './patterns/pictures'
import { HttpProblem } from './problem'
import { readLogo } from './settings/logo'
import { previewImport, runImport, sheetItems } from './stock/import'
import { allItems } from './stock/store'

keepFormsIn(process.env.FORMS)

const evaluate = ({ source, choices }: Tasks['evaluate']['input']): Tasks['evaluate']['output'] => ({
  report: evaluatePattern(source, choices).report,
})

const sizes = ({ source }: Tasks['sizes']['input']): Tasks['sizes']['output'] => ({
  usual: usualSize(source),
  measures: measuresOf(source),
})

const form = ({ source, choices }: Tasks['form']['input'], control?: TaskControl): Tasks['form']['output'] => ({
  report: formedReport(source, choices, control),
})

function draw({ source }: Tasks['draw']['input'], control?: TaskControl): Tasks['draw']['output'] {
  const { evaluated, form, unformed } = formed(source, {}, control)
  const { beads, pair, size, sizes } = evaluated.report
  return {
    beads: beads.reduce((sum, bead) => sum + bead.total, 0),
    pair,
    size,
    sizes: [...sizes],
    roles: beads.map(({ role }) => role),
    kinds: [...new Set(beads.filter(({ total }) => total > 0).map(({ kind, size }) => `${kind} ${size}`))],
    techniques: [...new Set(evaluated.report.statements.map(({ action }) => action.type))],
    level: levelOf(evaluated.report),
    minutes: evaluated.report.sound ? minutesOf(evaluated.report).practised : null,
    why: form ? null : (unformed?.why ?? 'There is nothing to draw.'),
    view: form ? JSON.stringify(viewOf(sceneOf(evaluated, form))) : null,
  }
}

const allocate = async ({ lines, lots }: Tasks['allocate']['input']): Promise<Allocation> =>
  allocateKits(lines, lots, await solver())

const shortages = async ({
  lines,
  lots,
  allocation,
}: Tasks['shortages']['input']): Promise<Tasks['shortages']['output']> =>
  shortagesOf(lines, lots, allocation, await solver())

const buy = ({ shortages }: Tasks['buy']['input']): Tasks['buy']['output'] =>
  shortages.map(({ short, packs }) => packsFor(short, packs))

async function substitutes(
  { source, size, choices, role, kits, most, thread }: Tasks['substitutes']['input'],
  control?: TaskControl,
): Promise<Tasks['substitutes']['output']> {
  const items: Item[] = []
  for await (const part of allItems(records())) {
    checkpoint(control)
    items.push(...part)
  }
  const chosen = chosenIn(choices, size, items)
  const now = chosen.items[role]
  const candidates = items.flatMap((item) => {
    const candidate = candidateOf(item)
    return candidate && item.onHand > item.reserved ? [candidate] : []
  })
  const found = substitutesFor(
    {
      source,
      choices: { size, beads: chosen.beads, counting: chosen.counting, settings: thread },
      role,
      now: now && candidateOf(now),
      candidates,
      kit: chosen.kit,
      colours: chosen.colours,
      touching: [],
      kits,
    },
    most,
  )
  return found.filter((each) => each.kits > 0).map(({ id, counting }) => ({ id, counting }))
}

/** Thread is measured on the form, so that a kit holds what its written pattern says. */
function bill({ source, size, choices, items, thread, spares }: Kit, control?: TaskControl): Tasks['bill']['output'] {
  const chosen = chosenIn(choices, size, items)
  const report = formedReport(
    source,
    {
      size,
      beads: chosen.beads,
      counting: chosen.counting,
      settings: thread,
    },
    control,
  )
  const bill = billOf(report, chosen.kit, spares)
  const fault = report.diagnostics.find((each) => each.severity === 'error')
  const troubles = [
    ...(fault ? [`Line ${fault.line}: ${fault.message}`] : []),
    ...bill.missing.map((role) =>
      role === 'thread' ? 'No thread has been chosen in this colourway.' : `${role} has no item in this colourway.`,
    ),
    ...bill.misfits.map(misfitWords),
  ]
  return { bill, troubles }
}

async function document({
  edition,
  language,
  paper,
  sheet,
  density,
  style,
  hand,
  seat,
  buyer,
}: Tasks['document']['input']): Promise<Uint8Array> {
  // Brought in only when a document is wanted: it is many times the size of everything else here.
  const { renderDocument } = await import('./documents/render')
  const ids = edition.pictures.map(({ id }) => id)
  const pictures = ids.length > 0 ? await readPictures(records(), ids, 'medium') : new Map<number, Uint8Array>()
  const logo = edition.shop.logo ? { ...edition.shop.logo, bytes: await readLogo(records()) } : undefined
  return renderDocument(writeEdition(edition, language, hand), {
    paper,
    logo,
    sheet,
    density,
    style,
    seat,
    buyer,
    pictures,
  })
}

async function writeTable({ rows, format, name }: Tasks['writeTable']['input']): Promise<Uint8Array> {
  const { writeTable: write } = await import('./stock/table-file')
  return write(rows, format, name)
}

async function picture({ bytes, crop }: Tasks['picture']['input']): Promise<PictureFiles> {
  const { pictureFiles } = await import('./documents/picture-files')
  return pictureFiles(bytes, crop)
}

async function labels({ labels, paper }: Tasks['labels']['input']): Promise<Uint8Array> {
  const { renderLabels } = await import('./documents/labels')
  return renderLabels(labels, paper)
}

/** A thread that reads much from the records, or writes much into them, does so by itself, so that nobody else waits while it is read and written. */
let opened: Database | undefined
function records(): Database {
  opened ??= connect(process.env.DATABASE_URL ?? '', undefined, { max: 2, lockSeconds: 60 }).db
  return opened
}

const archive = async ({ key }: Tasks['archive']['input'], control?: TaskControl): Promise<Uint8Array> =>
  takeArchive(records(), key, (done) => checkpoint(control, done))

async function stockFile({ format }: Tasks['stockFile']['input'], control?: TaskControl): Promise<Uint8Array> {
  const rows = writeSheet(await sheetItems(records()))
  checkpoint(control, 0.3)
  return writeTable({ rows, format, name: 'Stock' })
}

async function readTable({ bytes }: Tasks['readTable']['input']): Promise<Tasks['readTable']['output']> {
  const { BadTable, readTable: read } = await import('./stock/table-file')
  return read(bytes).catch((error: unknown) => {
    if (error instanceof BadTable)
      throw new HttpProblem(422, 'bad-file', error.message, { hint: 'Nothing has been changed.' })
    throw error
  })
}

async function sheetIn(bytes: Uint8Array, control: TaskControl | undefined): Promise<ReadSheet> {
  checkpoint(control, 0.02)
  const read = await readTable({ bytes })
  checkpoint(control, 0.4)
  const sheet = readSheet(read.rows, read.commas)
  checkpoint(control, 0.5)
  return sheet
}

const previewStock = async (
  { bytes }: Tasks['previewStock']['input'],
  control?: TaskControl,
): Promise<StockFileOutcome> => previewImport(records(), await sheetIn(bytes, control))

async function takeStock(
  { bytes, caller }: Tasks['takeStock']['input'],
  control?: TaskControl,
): Promise<StockFileOutcome> {
  const sheet = await sheetIn(bytes, control)
  return runOnce(
    records(),
    { ...caller, idempotency: { ...caller.idempotency, commit: () => undefined } },
    'stock file',
    (tx, actor) => runImport(tx, sheet, actor, (done) => checkpoint(control, 0.5 + done / 2)),
  )
}

/** A batch asks for the same few forms again and again as it is planned: the last ones are kept by this thread. */
const kept = new LRUCache<string, Report>({ max: 60 })

function formedReport(source: string, choices: Choices, control: TaskControl | undefined): Report {
  const key = JSON.stringify([source, choices])
  const report = kept.get(key) ?? formed(source, choices, control).evaluated.report
  kept.set(key, report)
  return report
}

/** The whole form at once, for as long as somebody waits for it. */
function formed(source: string, choices: Choices, control: TaskControl | undefined): FormedPattern {
  const working = formPattern(source, choices, 1000)
  for (;;) {
    const next = working.next()
    if (next.done) return next.value
    checkpoint(control)
  }
}

type Actor = {
  readonly [Name in TaskName]: (
    input: Tasks[Name]['input'],
    control?: TaskControl,
  ) => Tasks[Name]['output'] | Promise<Tasks[Name]['output']>
}

export const tasks: Actor = {
  evaluate,
  sizes,
  form,
  draw,
  allocate,
  shortages,
  buy,
  substitutes,
  bill,
  readTable,
  writeTable,
  labels,
  picture,
  document,
  archive,
  stockFile,
  previewStock,
  takeStock,
}

/** What a thread of the pool is given. */
export default async function work<Name extends TaskName>({
  name,
  input,
  control,
}: Job<Name>): Promise<Answered<Tasks[Name]['output']>> {
  try {
    checkpoint(control)
    return { done: await tasks[name](input, control) }
  } catch (error) {
    const { status, code, message, path, hint } = asProblem(error)
    // What is nobody's fault is told as it came, to be noted.
    if (status === 500) throw error
    return { refused: { status, code, message, path, hint } }
  }
}
