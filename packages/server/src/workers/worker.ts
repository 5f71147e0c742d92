import { allocateKits } from '@tessellum/core/allocation/allocate-kits'
import type { Allocation } from '@tessellum/core/allocation/allocation'
import { packsFor } from '@tessellum/core/allocation/buy'
import { shortagesOf } from '@tessellum/core/allocation/shortages'
import { measuresOf } from '@tessellum/core/desk/grade'
import { sceneOf } from '@tessellum/core/drawing/scene'
import { viewOf } from '@tessellum/core/drawing/view'
import { formedPattern } from '@tessellum/core/form/form-pattern'
import { billOf, misfitWords } from '@tessellum/core/kit/bill'
import { chosenIn } from '@tessellum/core/kit/choice'
import { type Choices, reckonPattern } from '@tessellum/core/report/reckon-pattern'
import type { Report } from '@tessellum/core/report/report'
import { usualSize } from '@tessellum/core/report/usual-size'
import { candidateOf } from '@tessellum/core/substitute/candidate'
import { substitutesFor } from '@tessellum/core/substitute/substitutes'
import { usualThreadSettings } from '@tessellum/core/thread/settings'
import { writeEdition } from '@tessellum/core/writing/edition'
import { solver } from './solver'
import type { Kit, Tasks } from './tasks'

export const reckon = ({ source, choices }: Tasks['reckon']['input']): Tasks['reckon']['output'] => ({
  report: reckonPattern(source, choices).report,
})

export const sizes = ({ source }: Tasks['sizes']['input']): Tasks['sizes']['output'] => ({
  usual: usualSize(source),
  measures: measuresOf(source),
})

export const form = ({ source, choices }: Tasks['form']['input']): Tasks['form']['output'] => ({
  report: formedReport(source, choices),
})

export function draw({ source }: Tasks['draw']['input']): Tasks['draw']['output'] {
  const { reckoned, form, unformed } = formedPattern(source)
  const { beads, pair, size, sizes } = reckoned.report
  return {
    beads: beads.reduce((sum, bead) => sum + bead.total, 0),
    pair,
    size,
    sizes: [...sizes],
    roles: beads.map(({ role }) => role),
    why: form ? null : (unformed?.why ?? 'There is nothing to draw.'),
    view: form ? JSON.stringify(viewOf(sceneOf(reckoned, form))) : null,
  }
}

export const allocate = async ({ lines, lots }: Tasks['allocate']['input']): Promise<Allocation> =>
  allocateKits(lines, lots, await solver())

export const shortages = async ({
  lines,
  lots,
  allocation,
}: Tasks['shortages']['input']): Promise<Tasks['shortages']['output']> =>
  shortagesOf(lines, lots, allocation, await solver())

export async function buy({ shortages }: Tasks['buy']['input']): Promise<Tasks['buy']['output']> {
  const solve = await solver()
  return shortages.map(({ short, packs }) => packsFor(short, packs, solve))
}

export function standIns({
  source,
  size,
  choices,
  items,
  role,
  kits,
  most,
  sampled,
}: Tasks['standIns']['input']): Tasks['standIns']['output'] {
  const chosen = chosenIn(choices, size, items)
  const now = chosen.items[role]
  const candidates = items.flatMap((item) => {
    const candidate = candidateOf(item)
    return candidate && item.onHand > item.reserved ? [candidate] : []
  })
  const found = substitutesFor(
    {
      source,
      choices: { size, beads: chosen.beads, counting: chosen.counting, settings: { ...usualThreadSettings, sampled } },
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
export function bill({ source, size, choices, items, sampled }: Kit): Tasks['bill']['output'] {
  const chosen = chosenIn(choices, size, items)
  const report = formedReport(source, {
    size,
    beads: chosen.beads,
    counting: chosen.counting,
    settings: { ...usualThreadSettings, sampled },
  })
  const bill = billOf(report, chosen.kit)
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

export async function document({
  edition,
  language,
  paper,
  sheet,
  seat,
}: Tasks['document']['input']): Promise<Uint8Array> {
  // Brought in only when a document is wanted: it is many times the size of everything else here.
  const { renderDocument } = await import('../documents/render')
  return renderDocument(writeEdition(edition, language), { paper, sheet, seat })
}

export async function readTable({ bytes }: Tasks['readTable']['input']): Promise<Tasks['readTable']['output']> {
  const { BadTable, readTable: read } = await import('../stock/table-file')
  try {
    return await read(bytes)
  } catch (error) {
    if (error instanceof BadTable) return { trouble: error.message }
    throw error
  }
}

export async function writeTable({ rows, format, name }: Tasks['writeTable']['input']): Promise<Uint8Array> {
  const { writeTable: write } = await import('../stock/table-file')
  return write(rows, format, name)
}

export async function labels({ labels, paper }: Tasks['labels']['input']): Promise<Uint8Array> {
  const { renderLabels } = await import('../documents/labels')
  return renderLabels(labels, paper)
}

const kept = new Map<string, Report>()
const mostKept = 60

/** A batch asks for the same few forms again and again as it is planned: the last ones are kept by this thread. */
function formedReport(source: string, choices: Choices): Report {
  const key = JSON.stringify([source, choices])
  const report = kept.get(key) ?? formedPattern(source, choices).reckoned.report
  kept.delete(key)
  kept.set(key, report)
  const [oldest] = kept.keys()
  if (kept.size > mostKept && oldest !== undefined) kept.delete(oldest)
  return report
}
