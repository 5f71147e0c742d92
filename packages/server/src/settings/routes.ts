import { Router } from 'express'
import { logActivity } from '../audit/log'
import { mount } from '../http/mount'
import { runOnce } from '../idempotency/run-once'
import type { Shop } from '../shop'
import { costSettings, saveCosts, saveSettings, shopSettings } from './store'

export function settingsRoutes({ db, revision }: Shop): Router {
  const router = Router()

  mount(router, 'GET /api/settings', () => shopSettings(db))
  mount(router, 'PUT /api/settings', async ({ body, caller }) => {
    const settings = await runOnce(db, caller, 'settings', async (tx) => {
      await saveSettings(tx, body)
      await logActivity(tx, caller.id, `changed the settings of ${Object.keys(body).join(', ')}`, '/settings')
      return shopSettings(tx)
    })
    revision.bumpSettings()
    return settings
  })
  mount(router, 'GET /api/costs', () => costSettings(db))
  mount(router, 'PUT /api/costs', ({ body: costs, caller }) =>
    runOnce(db, caller, 'costs', async (tx) => {
      await saveCosts(tx, costs)
      await logActivity(tx, caller.id, 'changed how costs are worked out', '/settings/costs')
      return costs
    }),
  )

  return router
}
