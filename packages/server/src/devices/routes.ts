import { type StandInName, standInNames, standInState } from '@tessellum/contract/devices'
import { fileName } from '@tessellum/core/writing/file-name'
import { Router } from 'express'
import { z } from 'zod'
import type { Config } from '../config'
import { mount, sent } from '../http/mount'
import { HttpProblem, notFound } from '../problem'
import type { Addresses } from '../settings/device-addresses'
import type { Shop } from '../shop'
import { lookUp } from './codes'
import { labelOfLot, labelsOf, labelsOfSeats } from './labels'
import { printPdf } from './printer'
import { zeroScale } from './scale'

export function deviceRoutes({ db, workers }: Shop, addresses: () => Promise<Addresses>, config: Config): Router {
  const router = Router()

  mount(router, 'POST /api/scale/zero', async () => {
    const { scale } = await addresses()
    if (!scale) throw notFound('scale')
    await zeroScale(scale).catch(() => {
      throw new HttpProblem(503, 'no-scale', 'The scale does not answer.', { hint: 'Type what it shows.' })
    })
    return { ok: true }
  })

  mount(router, 'GET /api/codes/:code', ({ params }) => lookUp(db, params.code))

  mount(router, 'GET /api/batches/:id/labels.pdf', async ({ params, query: { of, paper }, response }) => {
    const { name, labels } = await labelsOf(db, params.id, { of })
    const pdf = await workers.run('labels', { labels, paper })
    response
      .attachment(fileName(`${name} labels`, 'pdf'))
      .type('application/pdf')
      .send(Buffer.from(pdf))
    return sent
  })

  mount(router, 'GET /api/classes/:id/labels.pdf', async ({ params, response }) => {
    const { name, labels } = await labelsOfSeats(db, params.id)
    const pdf = await workers.run('labels', { labels, paper: 'A4' })
    response
      .attachment(fileName(`${name} seats`, 'pdf'))
      .type('application/pdf')
      .send(Buffer.from(pdf))
    return sent
  })

  mount(router, 'POST /api/batches/:id/labels', async ({ params, body }) => {
    const { labels } = await labelsOf(db, params.id, body)
    await printPdf((await addresses()).printer, await workers.run('labels', { labels, paper: 'roll' }))
    return { printed: labels.length }
  })

  mount(router, 'POST /api/lots/:id/label', async ({ params }) => {
    const label = await labelOfLot(db, params.id)
    await printPdf((await addresses()).printer, await workers.run('labels', { labels: [label], paper: 'roll' }))
    return { printed: 1 }
  })

  // Only where stand-ins stand in: they are played from the page.
  const controls: Readonly<Record<StandInName, string>> = {
    scale: config.SCALE_CONTROL,
    printer: config.PRINTER_CONTROL,
    scanner: config.SCANNER_CONTROL,
    supplier: config.SUPPLIER_CONTROL,
  }
  mount(router, 'GET /api/stand-ins', () => standInNames.filter((name) => controls[name] !== ''))
  mount(router, 'POST /api/stand-ins/:name', async ({ params, body: play }) => {
    const name = standInNames.find((each) => each === params.name)
    const control = name && controls[name]
    if (!control) throw notFound('stand-in')
    const answer = await fetch(`http://${control}/`, {
      method: 'POST',
      body: JSON.stringify(play),
      signal: AbortSignal.timeout(2000),
    }).catch(() => {
      throw new HttpProblem(503, 'no-stand-in', `The ${name}’s stand-in does not answer.`, {
        hint: 'Restart the shop.',
      })
    })
    const told = standInState.or(z.object({ trouble: z.string() })).parse(await answer.json())
    if ('faults' in told) return told
    throw new HttpProblem(400, 'bad-input', told.trouble)
  })

  return router
}
