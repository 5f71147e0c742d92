import { Router } from 'express'
import { logActivity } from '../audit/log'
import { mount, sent } from '../http/mount'
import type { Shop } from '../shop'

export function archiveRoutes({ db, workers }: Shop, key: string): Router {
  const router = Router()
  mount(router, 'GET /api/archive', async ({ caller, response }) => {
    const bytes = await workers.run('archive', { key })
    await logActivity(db, caller.id, 'took an archive of the whole shop')
    response.attachment(`shop-${new Date().toISOString().slice(0, 10)}.zip`).send(Buffer.from(bytes))
    return sent
  })
  return router
}
