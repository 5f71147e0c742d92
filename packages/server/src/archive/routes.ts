import { Router } from 'express'
import { logActivity } from '../audit/log'
import { mount } from '../http/mount'
import type { Shop } from '../shop'

export function archiveRoutes({ db, workers }: Shop, key: string): Router {
  const router = Router()
  mount(router, 'GET /api/archive', async (_, response, caller) => {
    const bytes = await workers.run('archive', { key })
    await logActivity(db, caller.id, 'took an archive of the whole shop')
    response.attachment(`shop-${new Date().toISOString().slice(0, 10)}.zip`).send(Buffer.from(bytes))
    return undefined
  })
  return router
}
