import { Router } from 'express'
import { bytesOf, fileBody } from '../http/file-body'
import { mount, sent } from '../http/mount'
import { runOnce } from '../idempotency/run-once'
import type { Shop } from '../shop'
import { addCustomer, changeCustomer, forgetCustomer } from './commands'
import { customerRows, takeCustomers } from './file'
import { customersPage, findCustomer } from './store'

export function customerRoutes({ db, workers }: Shop): Router {
  const router = Router()
  router.use('/api/customers/file', fileBody('customers.manage', '4mb'))

  mount(router, 'GET /api/customers', ({ query }) => customersPage(db, query))
  mount(router, 'POST /api/customers', ({ body, caller }) => addCustomer(db, body, caller))
  mount(router, 'GET /api/customers.csv', async ({ response }) => {
    const bytes = await workers.run('writeTable', { rows: await customerRows(db), format: 'csv', name: 'Customers' })
    response.attachment('customers.csv').type('text/csv').send(Buffer.from(bytes))
    return sent
  })
  mount(router, 'POST /api/customers/file/preview', async ({ request }) => {
    const { rows } = await workers.run('readTable', { bytes: bytesOf(request) })
    return takeCustomers(db, rows, undefined)
  })
  mount(router, 'POST /api/customers/file', async ({ request, caller }) => {
    const { rows } = await workers.run('readTable', { bytes: bytesOf(request) })
    return runOnce(db, caller, 'customer file', (tx, actor) => takeCustomers(tx, rows, actor))
  })
  mount(router, 'GET /api/customers/:id', ({ params }) => findCustomer(db, params.id))
  mount(router, 'PUT /api/customers/:id', ({ params, body, caller }) => changeCustomer(db, params.id, body, caller))
  mount(router, 'POST /api/customers/:id/forget', ({ params, caller }) => forgetCustomer(db, params.id, caller))

  return router
}
