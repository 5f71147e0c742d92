import { type StockFileOutcome, stockFileWanted } from '@tessellum/contract/stock-file'
import { readSheet, writeSheet } from '@tessellum/core/stock/sheet'
import express, { type Request, Router } from 'express'
import { actionKey, once } from '../actions/once'
import { digestBody } from '../http/asked'
import { Refusal, readInput } from '../http/refusal'
import { mount, type Shop } from '../http/route'
import { previewImport, runImport, sheetItems } from './import'

const mostBytes = '20mb'

/** The shelf as a file, in and out. */
export function stockFileRoutes({ db, workers }: Shop): Router {
  const router = Router()
  router.use('/api/stock/file', express.raw({ type: () => true, limit: mostBytes, verify: digestBody }))

  async function sheetIn(request: Request) {
    const bytes: unknown = request.body
    const read = await workers.run('readTable', {
      bytes: Buffer.isBuffer(bytes) ? new Uint8Array(bytes) : new Uint8Array(),
    })
    if ('trouble' in read) throw new Refusal(422, 'bad-file', read.trouble, { hint: 'Nothing has been changed.' })
    return readSheet(read.rows, read.commas)
  }

  mount(router, 'GET /api/stock/file', async (request, response) => {
    const { format } = readInput(stockFileWanted, request.query)
    const rows = writeSheet(await sheetItems(db))
    const bytes = await workers.run('writeTable', { rows, format, name: 'Stock' })
    response.attachment(`stock.${format}`).send(Buffer.from(bytes))
    return undefined
  })

  mount(
    router,
    'POST /api/stock/file/preview',
    async (request): Promise<StockFileOutcome> => previewImport(db, await sheetIn(request)),
  )

  mount(router, 'POST /api/stock/file', async (request, _, caller): Promise<StockFileOutcome> => {
    const key = actionKey(request)
    const sheet = await sheetIn(request)
    return once(db, key, 'stock file', caller, (tx) => runImport(tx, sheet, { personId: caller.id, actionKey: key }))
  })

  return router
}
