import { maxPictureBytes } from '@tessellum/contract/pictures'
import { mayDo } from '@tessellum/contract/rights'
import express, { type RequestHandler, Router } from 'express'
import type { SignedIn } from '../context'
import { mount, sent } from '../http/mount'
import { digestBody } from '../idempotency/request-key'
import type { Shop } from '../shop'
import { addPicture, cropPicture, describe, orderPictures, putBackPicture, removePicture } from './picture-commands'
import { picturesOf, readPicture } from './pictures'
import { findPattern } from './store'

const readFile = express.raw({ type: () => true, limit: maxPictureBytes, verify: digestBody })

/** Whoever may not add one sends nothing of that size. */
const readPictureFile: RequestHandler = (request, response, next) => {
  const caller: SignedIn | undefined = response.locals.caller
  if (caller && request.method === 'POST' && mayDo(caller.roles, 'patterns.write')) readFile(request, response, next)
  else next()
}

export function pictureRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  router.use('/api/patterns/:id/pictures', readPictureFile)

  mount(router, 'GET /api/patterns/:id/pictures', async ({ params }) => {
    const { id } = await findPattern(db, params.id)
    return picturesOf(db, id)
  })
  mount(router, 'POST /api/patterns/:id/pictures', ({ params, request: { body }, caller }) =>
    addPicture(shop, params.id, Buffer.isBuffer(body) ? new Uint8Array(body) : new Uint8Array(), caller),
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
