import { maxPictureBytes } from '@tessellum/contract/pictures'
import { Router } from 'express'
import { bytesOf, fileBody } from '../http/file-body'
import { mount, sent } from '../http/mount'
import type { Shop } from '../shop'
import { addPicture, cropPicture, describe, orderPictures, putBackPicture, removePicture } from './picture-commands'
import { picturesOf, readPicture } from './pictures'
import { findPattern } from './store'

export function pictureRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  router.use('/api/patterns/:id/pictures', fileBody('patterns.write', maxPictureBytes))

  mount(router, 'GET /api/patterns/:id/pictures', async ({ params }) => {
    const { id } = await findPattern(db, params.id)
    return picturesOf(db, id)
  })
  mount(router, 'POST /api/patterns/:id/pictures', ({ params, request, caller }) =>
    addPicture(shop, params.id, bytesOf(request), caller),
  )
  mount(router, 'PUT /api/patterns/:id/pictures/order', ({ params, body, caller }) =>
    orderPictures(db, params.id, body.ids, caller),
  )
  mount(router, 'PUT /api/pictures/:id', ({ params, body, caller }) => describe(db, params.id, body, caller))
  mount(router, 'POST /api/pictures/:id/crop', ({ params, body, caller }) =>
    cropPicture(shop, params.id, body.crop, caller),
  )
  mount(router, 'POST /api/pictures/:id/remove', ({ params, caller }) => removePicture(db, params.id, caller))
  mount(router, 'POST /api/pictures/:id/put-back', ({ params, caller }) => putBackPicture(db, params.id, caller))
  mount(router, 'GET /api/pictures/:id/:size', async ({ params, response }) => {
    const bytes = await readPicture(db, params.id, params.size)
    // What a picture looks like never changes.
    response.set('cache-control', 'private, max-age=31536000, immutable').type('image/jpeg').send(bytes)
    return sent
  })

  return router
}
