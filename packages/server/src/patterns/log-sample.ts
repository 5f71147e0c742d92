import type { newSample } from '@tessellum/contract/samples'
import { minutesOf } from '@tessellum/core/report/minutes'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem } from '../problem'
import { sample } from '../schema/samples'
import type { Shop } from '../shop'
import { samplesOf } from './samples'
import { findPattern, findVersion } from './store'

/** A sample that was stitched, kept beside the thread and the time that were computed for it. */
export async function logSample(
  { db, workers }: Shop,
  patternId: number,
  stitched: z.output<typeof newSample>,
  caller: Caller,
) {
  const pattern = await findPattern(db, patternId)
  const { version, size } = stitched
  const { source } = version === null ? pattern : await findVersion(db, patternId, version)
  const { report } = await workers.run('form', { source, choices: size ? { size } : {} })
  if (size && report.size !== size) {
    throw new HttpProblem(422, 'no-such-size', `This pattern has no size "${size}".`, {
      path: 'size',
      hint: `Sizes: ${report.sizes.join(', ') || 'one only'}.`,
    })
  }
  if (!(report.thread.totalMm > 0)) {
    throw new HttpProblem(422, 'no-thread', 'This pattern lays no thread, so nothing can be held against it.', {
      hint: 'Fix the pattern first.',
    })
  }
  const { practised, technique } = minutesOf(report)
  return runOnce(db, caller, `sample of ${patternId}`, async (tx) => {
    await tx.insert(sample).values({
      ...stitched,
      patternId,
      computedMm: report.thread.totalMm,
      computedMinutes: practised,
      technique,
      madeBy: caller.id,
    })
    await logActivity(tx, caller.id, `logged a sample of ${pattern.title}`, `/patterns/${patternId}`)
    return samplesOf(tx, patternId)
  })
}
