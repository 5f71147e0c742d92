import { Router } from 'express'
import { mount, sent } from '../http/mount'
import type { Shop } from '../shop'
import { beginPattern, keepVersion, saveDraft, saveWords } from './commands'
import { bringBack, copyPattern, describe, putAway, renamePattern, takeOut, throwAway } from './life'
import { carriersOf, findDrawing, findPattern, findVersion, libraryPage, patternNames, wordsOf } from './store'

export function patternRoutes(shop: Shop): Router {
  const { db, drawings, forms } = shop
  const router = Router()

  mount(router, 'GET /api/patterns', () => patternNames(db))
  mount(router, 'GET /api/library', ({ query }) => libraryPage(db, drawings, query))
  mount(router, 'POST /api/patterns', ({ body, caller }) => beginPattern(db, body, caller))
  mount(router, 'GET /api/patterns/:id', ({ params }) => findPattern(db, params.id))

  mount(router, 'POST /api/patterns/:id/copy', ({ params, caller }) => copyPattern(db, params.id, caller))
  mount(router, 'PUT /api/patterns/:id/title', ({ params, body, caller }) => renamePattern(db, params.id, body, caller))
  mount(router, 'PUT /api/patterns/:id/description', ({ params, body, caller }) =>
    describe(db, params.id, body, caller),
  )
  mount(router, 'POST /api/patterns/:id/put-away', ({ params, caller }) => putAway(db, params.id, caller))
  mount(router, 'POST /api/patterns/:id/take-out', ({ params, caller }) => takeOut(db, params.id, caller))
  mount(router, 'POST /api/patterns/:id/throw-away', ({ params, caller }) => throwAway(db, params.id, caller))
  mount(router, 'POST /api/patterns/:id/bring-back', ({ params, caller }) => bringBack(db, params.id, caller))

  mount(router, 'GET /api/patterns/:id/drawing', async ({ params, query, response }) => {
    const view = await findDrawing(db, params.id)
    // The address names the drawing, so that it need not be fetched twice.
    if (query.digest !== undefined) response.set('cache-control', 'private, max-age=31536000, immutable')
    response.type('json').send(view)
    return sent
  })

  mount(router, 'GET /api/forms/:digest', async ({ params, response }) => {
    const bytes = await forms?.bytes(params.digest)
    if (bytes) response.type('application/octet-stream').send(bytes)
    else response.status(204).end()
    return sent
  })

  mount(router, 'PUT /api/patterns/:id/draft', ({ params, body, caller }) => saveDraft(db, params.id, body, caller))
  mount(router, 'POST /api/patterns/:id/versions', ({ params, body, caller }) =>
    keepVersion(shop, params.id, body, caller),
  )

  mount(router, 'GET /api/patterns/:id/versions/:number', async ({ params }) => {
    const {
      id: _,
      words: __,
      sampled: ___,
      pictures: ____,
      ...version
    } = await findVersion(db, params.id, params.number)
    return version
  })

  mount(router, 'GET /api/patterns/:id/versions/:number/carriers', async ({ params }) => {
    const version = await findVersion(db, params.id, params.number)
    return carriersOf(db, version.id)
  })

  mount(router, 'GET /api/patterns/:id/words', async ({ params }) => {
    const { id } = await findPattern(db, params.id)
    return wordsOf(db, id)
  })
  mount(router, 'PUT /api/patterns/:id/words', ({ params, body, caller }) => saveWords(db, params.id, body, caller))

  return router
}
