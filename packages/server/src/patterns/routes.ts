import { newPattern, saveDraft, saveVersion } from '@tessellum/contract/patterns'
import { titleOf } from '@tessellum/core/notation/title'
import { eq, max } from 'drizzle-orm'
import { Router } from 'express'
import { Refusal, readId, readInput } from '../http/refusal'
import { mount, type Shop } from '../http/route'
import { pattern, patternVersion } from './schema'
import { findPattern, findVersion, listPatterns, lockDraft } from './store'

export function patternRoutes({ db, workers }: Shop): Router {
  const router = Router()

  mount(router, 'GET /api/patterns', () => listPatterns(db))

  mount(router, 'POST /api/patterns', async (request, _, caller) => {
    const { source } = readInput(newPattern, request.body)
    const [made] = await db
      .insert(pattern)
      .values({ title: titleOf(source), source, savedBy: caller.id })
      .returning()
    return findPattern(db, (made as { id: number }).id)
  })

  mount(router, 'GET /api/patterns/:id', (request) => findPattern(db, readId(request.params.id, 'pattern')))

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
    const { name, note, revision } = readInput(saveVersion, request.body)
    const draft = await findPattern(db, id)
    const { report } = await workers.run('reckon', { source: draft.source, choices: {} })
    const fault = report.diagnostics.find((each) => each.severity === 'error')
    if (fault) {
      throw new Refusal(422, 'faulty-pattern', `Line ${fault.line}: ${fault.message}`, {
        path: `line ${fault.line}, column ${fault.column}`,
        hint: fault.mend ?? 'Mend the line; the draft stays as it is.',
      })
    }
    return db.transaction(async (tx) => {
      const row = await lockDraft(tx, id, revision)
      const [last] = await tx
        .select({ number: max(patternVersion.number) })
        .from(patternVersion)
        .where(eq(patternVersion.patternId, id))
      await tx
        .insert(patternVersion)
        .values({ patternId: id, number: (last?.number ?? 0) + 1, name, note, source: row.source, madeBy: caller.id })
      return findPattern(tx, id)
    })
  })

  mount(router, 'GET /api/patterns/:id/versions/:number', async (request) => {
    const { id: _, ...version } = await findVersion(
      db,
      readId(request.params.id, 'pattern'),
      readId(request.params.number, 'version'),
    )
    return version
  })

  return router
}
