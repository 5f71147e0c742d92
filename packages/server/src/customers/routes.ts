import { mayDo } from '@tessellum/contract/rights'
import express, { type Request, type RequestHandler, Router } from 'express'
import type { SignedIn } from '../context'
import { mount, sent } from '../http/mount'
import { digestBody } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import type { Shop } from '../shop'
import { addCustomer, changeCustomer, forgetCustomer } from './commands'
import { customerRows, takeCustomers } from './file'
import { customersPage, findCustomer } from './store'

const readBytes = express.raw({ type: () => true, limit: '4mb', verify: digestBody })

/** Whoever may not take a file in sends nothing of that size. */
const readFile: RequestHandler = (request, response, next) => {
  const caller: SignedIn | undefined = response.locals.caller
  if (caller && mayDo(caller.roles, 'customers.keep')) readBytes(request, response, next)
  else next()
}

const bytesOf = ({ body }: Request) => (Buffer.isBuffer(body) ? new Uint8Array(body) : new Uint8Array())

export function customerRoutes({ db, workers }: Shop): Router {
  const router = Router()
  router.use('/api/customers/file', readFile)

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
