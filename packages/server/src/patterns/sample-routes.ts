import { newSample } from '@tessellum/contract/samples'
import { minutesOf } from '@tessellum/core/report/minutes'
import { Router } from 'express'
import { logActivity } from '../audit/log'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOrNew } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem } from '../problem'
import { sample } from '../schema/samples'
import type { Shop } from '../shop'
import { samplesOf } from './samples'
import { findPattern, findVersion } from './store'

export function sampleRoutes({ db, workers }: Shop): Router {
  const router = Router()

  mount(router, 'GET /api/patterns/:id/samples', async (request) => {
    const { id } = await findPattern(db, readId(request.params.id, 'pattern'))
    return samplesOf(db, id)
  })

  mount(router, 'POST /api/patterns/:id/samples', async (request, _, caller) => {
    const pattern = await findPattern(db, readId(request.params.id, 'pattern'))
    const input = readInput(newSample, request.body)
    const { source } = input.version === null ? pattern : await findVersion(db, pattern.id, input.version)
    const { report } = await workers.run('form', { source, choices: input.size ? { size: input.size } : {} })
    if (input.size && report.size !== input.size) {
      throw new HttpProblem(422, 'no-such-size', `This pattern has no size "${input.size}".`, {
        path: 'size',
        hint: `Sizes: ${report.sizes.join(', ') || 'one only'}.`,
      })
    }
    if (!(report.thread.totalMm > 0)) {
      throw new HttpProblem(422, 'no-thread', 'This pattern lays no thread, so nothing can be held against it.', {
        hint: 'Mend the pattern first.',
      })
    }
    const { practised, technique } = minutesOf(report)
    return runOnce(db, idempotencyKeyOrNew(request), `sample of ${pattern.id}`, caller, async (tx) => {
      await tx.insert(sample).values({
        ...input,
        patternId: pattern.id,
        computedMm: report.thread.totalMm,
        computedMinutes: practised,
        technique,
        madeBy: caller.id,
      })
      await logActivity(tx, caller.id, `logged a sample of ${pattern.title}`, `/patterns/${pattern.id}`)
      return samplesOf(tx, pattern.id)
    })
  })

  return router
}
