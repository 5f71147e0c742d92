import { Router } from 'express'
import { bytesOf, fileBody } from '../http/file-body'
import { mount, sent } from '../http/mount'
import type { Shop } from '../shop'

const maxBytes = '20mb'

/** The shelf as a file, in and out: read and written by a thread with a connection of its own. */
export function stockFileRoutes({ workers }: Shop): Router {
  const router = Router()
  router.use('/api/stock/file', fileBody('stock.keep', maxBytes))

  mount(router, 'GET /api/stock/file', async ({ query: { format }, response }) => {
    const bytes = await workers.run('stockFile', { format })
    response.attachment(`stock.${format}`).send(Buffer.from(bytes))
    return sent
  })

  mount(router, 'POST /api/stock/file/preview', ({ request }) =>
    workers.run('previewStock', { bytes: bytesOf(request) }),
  )

  mount(router, 'POST /api/stock/file', async ({ request, caller: { id, idempotency } }) => {
    const { key, digest } = idempotency
    const outcome = await workers.run('takeStock', {
      bytes: bytesOf(request),
      caller: { id, idempotency: { key, digest } },
    })
    idempotency.commit()
    return outcome
  })

  return router
}
