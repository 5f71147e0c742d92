import { newSample } from '@tessellum/contract/samples'
import { minutesOf } from '@tessellum/core/report/minutes'
import { Router } from 'express'
import { record } from '../audit/log'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { actionKeyOrNew } from '../idempotency/request-key'
import { once } from '../idempotency/run-once'
import { Refusal } from '../problem'
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
      throw new Refusal(422, 'no-such-size', `This pattern has no size "${input.size}".`, {
        path: 'size',
        hint: `Sizes: ${report.sizes.join(', ') || 'one only'}.`,
      })
    }
    if (!(report.thread.totalMm > 0)) {
      throw new Refusal(422, 'no-thread', 'This pattern lays no thread, so nothing can be held against it.', {
        hint: 'Mend the pattern first.',
      })
    }
    const { practised, technique } = minutesOf(report)
    return once(db, actionKeyOrNew(request), `sample of ${pattern.id}`, caller, async (tx) => {
      await tx.insert(sample).values({
        ...input,
        patternId: pattern.id,
        computedMm: report.thread.totalMm,
        computedMinutes: practised,
        technique,
        madeBy: caller.id,
      })
      await record(tx, caller.id, `logged a sample of ${pattern.title}`, `/patterns/${pattern.id}`)
      return samplesOf(tx, pattern.id)
    })
  })

  return router
}
