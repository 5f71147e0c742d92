import type { SizedOrder, sizeOrder } from '@tessellum/contract/orders'
import { wristEaseOf } from '@tessellum/contract/usual-settings'
import { wornLength } from '@tessellum/core/desk/wearer'
import { finishedIn } from '@tessellum/core/form/finished'
import { writeMadeSize } from '@tessellum/core/sizing/made-size'
import type { z } from 'zod'
import { findVersion } from '../patterns/store'
import { HttpProblem } from '../problem'
import { settingsNow } from '../settings/store'
import type { Shop } from '../shop'

/** Each size takes a form to settle: more are not tried. */
const maxSizes = 6

/** How a pattern is made to a customer's measure. */
export async function sizeFor(
  shop: Shop,
  { patternId, version, worn, measureMm, ease }: z.output<typeof sizeOrder>,
): Promise<SizedOrder> {
  const { source } = await findVersion(shop.db, patternId, version)
  const formed = async (size: string) =>
    (await shop.workers.run('form', { source, choices: size ? { size } : {} })).report
  const usual = await formed('')
  const thick = finishedIn(usual)?.depthMm ?? 0
  const easeMm = wristEaseOf(await settingsNow(shop))[ease]
  let wantedMm: number
  try {
    wantedMm = wornLength(worn, measureMm, easeMm, Math.min(thick, 30))
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
    throw new HttpProblem(422, 'no-such-measure', error.message, {
      path: 'measureMm',
      hint: 'Measure again, or change the unit.',
    })
  }
  const { measures } = await shop.workers.run('sizes', { source })
  const made = measures.includes('length') ? [writeMadeSize({ name: usual.size, measures: { length: wantedMm } })] : []
  const sizes = usual.sizes.length > 0 ? usual.sizes.slice(0, maxSizes) : ['']
  const ways = await Promise.all(
    [...made, ...sizes].map(async (size) => {
      const report = await formed(size)
      const finished = finishedIn(report)
      const fault = report.diagnostics.find(({ severity }) => severity === 'error')
      return {
        size,
        made: made.includes(size),
        finishedMm: finished
          ? Math.round(Math.max(finished.widthMm, finished.heightMm, finished.depthMm) * 10) / 10
          : null,
        trouble: fault ? `Line ${fault.line}: ${fault.message}` : null,
      }
    }),
  )
  const off = ({ finishedMm, trouble }: SizedOrder['ways'][number]) =>
    trouble !== null || finishedMm === null ? Number.POSITIVE_INFINITY : Math.abs(finishedMm - wantedMm)
  return { wantedMm, ways: ways.sort((a, b) => Number(b.made) - Number(a.made) || off(a) - off(b)) }
}
