import { newPattern, saveDraft, saveVersion } from '@tessellum/contract/patterns'
import { saveWords } from '@tessellum/contract/words'
import { titleOf } from '@tessellum/core/notation/title'
import { eq, max } from 'drizzle-orm'
import { Router } from 'express'
import { logActivity } from '../audit/log'
import { explain, makeColourway } from '../colourways/store'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOrNew } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem } from '../problem'
import { pattern, patternVersion } from '../schema/patterns'
import type { Shop } from '../shop'
import { samplesOf } from './samples'
import {
  carriersOf,
  findDrawing,
  findPattern,
  findVersion,
  listPatterns,
  lockDraft,
  saveWordsOf,
  wordsOf,
} from './store'

export function patternRoutes({ db, workers, drawings }: Shop): Router {
  const router = Router()

  mount(router, 'GET /api/patterns', () => listPatterns(db, drawings))

  mount(router, 'POST /api/patterns', async (request, _, caller) => {
    const { source, words, colourways } = readInput(newPattern, request.body)
    return runOnce(db, idempotencyKeyOrNew(request), 'new pattern', caller, async (tx) => {
      const [made] = await tx
        .insert(pattern)
        .values({ title: titleOf(source), source, savedBy: caller.id })
        .returning({ id: pattern.id })
      const { id } = made as { id: number }
      for (const each of words) await saveWordsOf(tx, id, each)
      for (const { name, choices } of colourways) await makeColourway(tx, id, name, choices, caller.id)
      return findPattern(tx, id)
    }).catch((error: unknown) => {
      throw explain(error, colourways[0]?.name ?? '')
    })
  })

  mount(router, 'GET /api/patterns/:id', (request) => findPattern(db, readId(request.params.id, 'pattern')))

  mount(router, 'GET /api/patterns/:id/drawing', async (request, response) => {
    const view = await findDrawing(db, readId(request.params.id, 'pattern'))
    // The address names the drawing, so that it need not be fetched twice.
    if (request.query.digest !== undefined) response.set('cache-control', 'private, max-age=31536000, immutable')
    response.type('json').send(view)
    return undefined
  })

  mount(router, 'PUT /api/patterns/:id/draft', async (request, _, caller) => {
    const id = readId(request.params.id, 'pattern')
    const { source, revision } = readInput(saveDraft, request.body)
    return db.transaction(async (tx) => {
      await lockDraft(tx, id, revision)
      await tx
        .update(pattern)
        .set({ source, title: titleOf(source), revision: revision + 1, savedBy: caller.id, savedAt: new Date() })
        .where(eq(pattern.id, id))
      return findPattern(tx, id)
    })
  })

  mount(router, 'POST /api/patterns/:id/versions', async (request, _, caller) => {
    const id = readId(request.params.id, 'pattern')
    const { name, note, revision, publish, corrects } = readInput(saveVersion, request.body)
    const draft = await findPattern(db, id)
    const { report } = await workers.run('reckon', { source: draft.source, choices: {} })
    const fault = report.diagnostics.find((each) => each.severity === 'error')
    if (fault) {
      throw new HttpProblem(422, 'faulty-pattern', `Line ${fault.line}: ${fault.message}`, {
        path: `line ${fault.line}, column ${fault.column}`,
        hint: fault.mend ?? 'Mend the line; the draft stays as it is.',
      })
    }
    return runOnce(db, idempotencyKeyOrNew(request), `version of ${id}`, caller, async (tx) => {
      const row = await lockDraft(tx, id, revision)
      const [last] = await tx
        .select({ number: max(patternVersion.number) })
        .from(patternVersion)
        .where(eq(patternVersion.patternId, id))
      if (corrects !== undefined) {
        const wrong = await findVersion(tx, id, corrects)
        if (!wrong.published)
          throw new HttpProblem(
            422,
            'not-published',
            `Version ${corrects} was never published, so nobody carries it.`,
            {
              path: 'corrects',
              hint: 'Keep a version without an erratum.',
            },
          )
        if (note === '')
          throw new HttpProblem(422, 'no-erratum', 'An erratum says what was wrong.', {
            path: 'note',
            hint: 'Write it in a line or two.',
          })
      }
      const { correction } = await samplesOf(tx, id)
      await tx.insert(patternVersion).values({
        patternId: id,
        number: (last?.number ?? 0) + 1,
        name,
        note,
        source: row.source,
        words: await wordsOf(tx, id),
        published: publish || corrects !== undefined,
        corrects,
        sampledRatio: correction.ratio,
        sampledCount: correction.count,
        madeBy: caller.id,
      })
      const number = (last?.number ?? 0) + 1
      const did = corrects !== undefined ? `corrected version ${corrects} by` : publish ? 'published' : 'kept'
      await logActivity(tx, caller.id, `${did} version ${number} of ${row.title}`, `/patterns/${id}/versions`)
      return findPattern(tx, id)
    })
  })

  mount(router, 'GET /api/patterns/:id/versions/:number', async (request) => {
    const {
      id: _,
      words: __,
      sampled: ___,
      ...version
    } = await findVersion(db, readId(request.params.id, 'pattern'), readId(request.params.number, 'version'))
    return version
  })

  mount(router, 'GET /api/patterns/:id/versions/:number/carriers', async (request) => {
    const { id } = request.params
    const version = await findVersion(db, readId(id, 'pattern'), readId(request.params.number, 'version'))
    return carriersOf(db, version.id)
  })

  mount(router, 'GET /api/patterns/:id/words', async (request) => {
    const { id } = await findPattern(db, readId(request.params.id, 'pattern'))
    return wordsOf(db, id)
  })

  mount(router, 'PUT /api/patterns/:id/words', async (request, _, caller) => {
    const id = readId(request.params.id, 'pattern')
    const { from, ...words } = readInput(saveWords, request.body)
    return runOnce(db, idempotencyKeyOrNew(request), `words of ${id}`, caller, async (tx) => {
      await findPattern(tx, id)
      if (from) await saveWordsOf(tx, id, { ...words, ...from, instead: '', also: '' })
      await saveWordsOf(tx, id, words)
      return wordsOf(tx, id)
    })
  })

  return router
}
