import { Router } from 'express'
import { logActivity } from '../audit/log'
import { bytesOf, fileBody } from '../http/file-body'
import { mount, sent } from '../http/mount'
import { runOnce } from '../idempotency/run-once'
import type { Shop } from '../shop'
import { logoOf, readLogo, removeLogo, saveLogo } from './logo'
import { costSettings, saveCosts, saveSettings, shopSettings } from './store'

/** A sign need not be large. */
const maxLogo = '5mb'

export function settingsRoutes(shop: Shop): Router {
  const { db, revision } = shop
  const router = Router()
  router.use('/api/logo', fileBody('settings.keep', maxLogo))

  mount(router, 'GET /api/logo', async () => ({ logo: await logoOf(db) }))
  mount(router, 'POST /api/logo', ({ request, caller }) => saveLogo(shop, bytesOf(request), caller))
  mount(router, 'POST /api/logo/remove', ({ caller }) => removeLogo(shop, caller))
  mount(router, 'GET /api/logo/:digest', async ({ response }) => {
    const bytes = await readLogo(db)
    // Its address names it, so that it need not be fetched twice.
    response.set('cache-control', 'private, max-age=31536000, immutable').type('image/jpeg').send(bytes)
    return sent
  })

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
