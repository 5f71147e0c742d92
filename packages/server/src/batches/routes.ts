import {
  changeBatch,
  changeLines,
  changePlan,
  newBatch,
  outlookWanted,
  substituteInLine,
} from '@tessellum/contract/batches'
import { acceptSubstitutes } from '@tessellum/contract/rescue'
import { stockFileWanted } from '@tessellum/contract/stock-file'
import { perSpoken, spokenUnit } from '@tessellum/core/stock/quantity'
import { plainCells } from '@tessellum/core/stock/sheet'
import { fileName } from '@tessellum/core/writing/file-name'
import { type Request, Router } from 'express'
import type { Caller } from '../context'
import { mount } from '../http/mount'
import { readId, readInput } from '../http/read-input'
import { idempotencyKeyOf } from '../idempotency/request-key'
import { runOnce } from '../idempotency/run-once'
import { billsFor } from '../planning/bills'
import { competingDrafts } from '../planning/competing'
import { couldMakeOf } from '../planning/could-make'
import { linesOf } from '../planning/lines'
import { outlookFor } from '../planning/outlook'
import { rescueFor } from '../planning/substitutes'
import { HttpProblem, notFound } from '../problem'
import type { Shop } from '../shop'
import { resolveLines } from './lines'
import { lockBatch } from './lock'
import { planAgain, release } from './release'
import { fillingFor, reserve } from './reserve'
import { layOutAgain, planBatch, retrying, reviseBatch, turnBatch } from './revise'
import { findBatch, listBatches } from './store'
import { type Substitution, substituted } from './substitute'

export function batchRoutes(shop: Shop): Router {
  const { db } = shop
  const router = Router()
  const batchId = (request: Request) => readId(request.params.id, 'batch')

  mount(router, 'GET /api/batches', () => listBatches(db))
  mount(router, 'GET /api/batches/competing', () => competingDrafts(shop))
  mount(router, 'GET /api/items/:id/rescue', (request) => rescueFor(shop, readId(request.params.id, 'item')))

  mount(router, 'POST /api/batches', async (request, _, caller) => {
    const { name, dueOn, priority, lines } = readInput(newBatch, request.body)
    const planned = await resolveLines(db, lines)
    const { id } = await runOnce(db, idempotencyKeyOf(request), 'new batch', caller, async (tx) => ({
      id: await planBatch(tx, { name, dueOn, priority }, planned, caller.id),
    }))
    return findBatch(shop, id)
  })

  mount(router, 'POST /api/batches/outlook', async (request) => {
    const { lines, batchId: of } = readInput(outlookWanted, request.body)
    return outlookFor(shop, await resolveLines(db, lines, of), of)
  })

  mount(router, 'POST /api/batches/could-make', async (request) => {
    const { lines } = readInput(changeLines, request.body)
    return couldMakeOf(shop, await resolveLines(db, lines))
  })

  mount(router, 'GET /api/batches/:id', (request) => findBatch(shop, batchId(request)))

  mount(router, 'GET /api/batches/:id/file', async (request, response) => {
    const { format } = readInput(stockFileWanted, request.query)
    const { name, lines, outlook } = await findBatch(shop, batchId(request))
    const rows = [
      ['pattern', 'size', 'colourway', 'kits', 'role', 'item', 'exact', 'spare', 'in a kit', 'unit', 'in all'],
      ...lines.flatMap(({ title, size, colourway, kits }, i) =>
        (outlook.lines[i]?.bill ?? []).map(({ itemId, roles, exact, spare, quantity, unit }) => [
          title,
          size,
          colourway,
          String(kits),
          roles.join(' + '),
          outlook.items.find((item) => item.itemId === itemId)?.name ?? '',
          String(exact),
          String(spare),
          String(quantity / perSpoken[unit]),
          spokenUnit[unit],
          String((quantity * kits) / perSpoken[unit]),
        ]),
      ),
    ]
    const bytes = await shop.workers.run('writeTable', { rows: plainCells(rows), format, name: 'Bill' })
    response.attachment(fileName(`${name} bill`, format)).send(Buffer.from(bytes))
    return undefined
  })

  mount(router, 'PUT /api/batches/:id', async (request, _, caller) => {
    const id = batchId(request)
    const turn = readInput(changeBatch, request.body)
    await runOnce(db, idempotencyKeyOf(request), `turn ${id}`, caller, async (tx) => {
      await turnBatch(tx, id, turn, caller.id)
      return { id }
    })
    return findBatch(shop, id)
  })

  const answered = async (id: number, toEmpty: string[]) => ({ ...(await findBatch(shop, id)), toEmpty })

  mount(router, 'PUT /api/batches/:id/lines', async (request, _, caller) => {
    const id = batchId(request)
    const { lines, ...turn } = readInput(changePlan, request.body)
    const wanted = await resolveLines(db, lines, id)
    return answered(id, await reviseBatch(shop, id, wanted, caller, idempotencyKeyOf(request), turn))
  })

  async function substituteIn(id: number, substitutions: readonly Substitution[], caller: Caller, key: string) {
    // The versions come first: a version that in the end no line takes is nobody's loss.
    const { lines } = await runOnce(db, `${key}-beads`, `beads ${id}`, caller, async (tx) => ({
      lines: await substituted(tx, id, await linesOf(tx, id), substitutions, caller.id),
    }))
    return answered(id, await reviseBatch(shop, id, lines, caller, key))
  }

  mount(router, 'POST /api/batches/:id/lines/:line/substitute', async (request, _, caller) => {
    const id = batchId(request)
    const number = readId(request.params.line, 'line')
    const { kits, ...choice } = readInput(substituteInLine, request.body)
    const lineId = (await linesOf(db, id))[number - 1]?.id
    if (lineId === undefined) throw notFound('line')
    return substituteIn(id, [{ lineId, kits, choices: [choice] }], caller, idempotencyKeyOf(request))
  })

  mount(router, 'POST /api/batches/:id/substitutes', async (request, _, caller) => {
    const { substitutes } = readInput(acceptSubstitutes, request.body)
    return substituteIn(batchId(request), substitutes, caller, idempotencyKeyOf(request))
  })

  mount(router, 'POST /api/batches/:id/reserve', async (request, _, caller) => {
    const id = batchId(request)
    const key = idempotencyKeyOf(request)
    const lines = await linesOf(db, id)
    const bills = await billsFor(shop, lines)
    await retrying(async () => {
      const filling = await fillingFor(db, shop.workers, lines, bills)
      await runOnce(db, key, `reserve ${id}`, caller, async (tx) => {
        // The bills were reckoned before the batch was locked: they must still be of its lines.
        await lockBatch(tx, id)
        if (JSON.stringify(await linesOf(tx, id)) !== JSON.stringify(lines)) {
          throw new HttpProblem(409, 'crossed', 'Somebody changed this batch at the same moment.', {
            hint: 'Nothing has been reserved. Look at it and try again.',
          })
        }
        await reserve(tx, lines, filling, { batchId: id, personId: caller.id, idempotencyKey: key })
        return { id }
      })
    })
    return findBatch(shop, id)
  })

  mount(router, 'POST /api/batches/:id/lay-out', async (request, _, caller) => {
    const id = batchId(request)
    await layOutAgain(shop, id, caller, idempotencyKeyOf(request))
    return findBatch(shop, id)
  })

  const give = (to: 'draft' | 'cancelled') => async (request: Request, _: unknown, caller: Caller) => {
    const id = batchId(request)
    const key = idempotencyKeyOf(request)
    await runOnce(db, key, `${to === 'draft' ? 'release' : 'cancel'} ${id}`, caller, async (tx) => {
      await release(tx, { batchId: id, personId: caller.id, idempotencyKey: key }, to)
      return { id }
    })
    return findBatch(shop, id)
  }
  mount(router, 'POST /api/batches/:id/plan-again', async (request, _, caller) => {
    const id = batchId(request)
    const key = idempotencyKeyOf(request)
    await runOnce(db, key, `plan again ${id}`, caller, async (tx) => {
      await planAgain(tx, { batchId: id, personId: caller.id, idempotencyKey: key })
      return { id }
    })
    return findBatch(shop, id)
  })
  mount(router, 'POST /api/batches/:id/release', give('draft'))
  mount(router, 'POST /api/batches/:id/cancel', give('cancelled'))

  return router
}
