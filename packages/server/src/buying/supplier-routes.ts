import { Router } from 'express'
import { bytesOf, fileBody } from '../http/file-body'
import { mount, sent } from '../http/mount'
import { runOnce } from '../idempotency/run-once'
import type { Shop } from '../shop'
import {
  addSupplier,
  changeSupplier,
  findSupplier,
  listSuppliers,
  removeSupplier,
  supplierRows,
  takeSuppliers,
} from './suppliers'

export function supplierRoutes({ db, workers }: Shop): Router {
  const router = Router()
  router.use('/api/suppliers/file', fileBody('stock.buy', '4mb'))

  mount(router, 'GET /api/suppliers', () => listSuppliers(db))
  mount(router, 'POST /api/suppliers', ({ body, caller }) => addSupplier(db, body, caller))
  mount(router, 'GET /api/suppliers.csv', async ({ response }) => {
    const bytes = await workers.run('writeTable', { rows: await supplierRows(db), format: 'csv', name: 'Suppliers' })
    response.attachment('suppliers.csv').type('text/csv').send(Buffer.from(bytes))
    return sent
  })
  mount(router, 'POST /api/suppliers/file/preview', async ({ request }) => {
    const { rows } = await workers.run('readTable', { bytes: bytesOf(request) })
    return takeSuppliers(db, rows, undefined)
  })
  mount(router, 'POST /api/suppliers/file', async ({ request, caller }) => {
    const { rows } = await workers.run('readTable', { bytes: bytesOf(request) })
    return runOnce(db, caller, 'supplier file', (tx, actor) => takeSuppliers(tx, rows, actor))
  })
  mount(router, 'GET /api/suppliers/:id', ({ params }) => findSupplier(db, params.id))
  mount(router, 'PUT /api/suppliers/:id', ({ params, body, caller }) => changeSupplier(db, params.id, body, caller))
  mount(router, 'POST /api/suppliers/:id/remove', ({ params, caller }) => removeSupplier(db, params.id, caller))

  return router
}
