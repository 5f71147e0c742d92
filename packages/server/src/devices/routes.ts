import {
  labelsWanted,
  playStandIn,
  printLabels,
  type ScannerNews,
  type StandInName,
  standInNames,
} from '@tessellum/contract/devices'
import type { ScaleNews } from '@tessellum/contract/scale'
import { fileName } from '@tessellum/core/writing/file-name'
import { type Response, Router } from 'express'
import type { Config } from '../config'
import { notFound, Refusal, readId, readInput } from '../http/refusal'
import { mount, type Shop } from '../http/route'
import { lookUp } from './codes'
import { labelOfLot, labelsOf, labelsOfSeats } from './labels'
import { listenToLine } from './line'
import { printPdf } from './printer'
import { listenToScale, zeroScale } from './scale'

/** A stream of news for one page. @param listen begins, and returns what ends it */
function stream<News>(response: Response, listen: (tell: (news: News) => void) => () => void): void {
  response.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-cache', connection: 'keep-alive' })
  response.flushHeaders()
  const stop = listen((news) => response.write(`data: ${JSON.stringify(news)}\n\n`))
  const beat = setInterval(() => response.write(': still here\n\n'), 25_000)
  response.on('close', () => {
    clearInterval(beat)
    stop()
  })
}

const nothing = () => undefined

export function deviceRoutes({ db, workers }: Shop, config: Config): Router {
  const { SCALE, PRINTER, SCANNER } = config
  const router = Router()

  mount(router, 'GET /api/scale', (_, response) => {
    stream<ScaleNews>(response, (tell) => {
      if (!SCALE) {
        tell({ gone: 'none' })
        return nothing
      }
      // What has not changed is not told again.
      let last = ''
      return listenToScale(SCALE, (news) => {
        const text = JSON.stringify(news)
        if (text !== last) tell(news)
        last = text
      })
    })
    return undefined
  })

  mount(router, 'POST /api/scale/zero', async () => {
    if (!SCALE) throw notFound('scale')
    await zeroScale(SCALE).catch(() => {
      throw new Refusal(503, 'no-scale', 'The scale does not answer.', { hint: 'Type what it shows.' })
    })
    return { ok: true }
  })

  mount(router, 'GET /api/scanner', (_, response) => {
    stream<ScannerNews>(response, (tell) => {
      if (!SCANNER) {
        tell({ gone: 'none' })
        return nothing
      }
      return listenToLine(SCANNER, {
        line: (code) => tell({ code: (code ?? '').trim().slice(0, 200) }),
        gone: () => tell({ gone: 'unreachable' }),
      })
    })
    return undefined
  })

  mount(router, 'GET /api/codes/:code', (request) => lookUp(db, String(request.params.code)))

  mount(router, 'GET /api/batches/:id/labels.pdf', async (request, response) => {
    const { of, paper } = readInput(labelsWanted, request.query)
    const { name, labels } = await labelsOf(db, readId(request.params.id, 'batch'), { of })
    const pdf = await workers.run('labels', { labels, paper })
    response
      .attachment(fileName(`${name} labels`, 'pdf'))
      .type('application/pdf')
      .send(Buffer.from(pdf))
    return undefined
  })

  mount(router, 'GET /api/classes/:id/labels.pdf', async (request, response) => {
    const { name, labels } = await labelsOfSeats(db, readId(request.params.id, 'class'))
    const pdf = await workers.run('labels', { labels, paper: 'A4' })
    response
      .attachment(fileName(`${name} seats`, 'pdf'))
      .type('application/pdf')
      .send(Buffer.from(pdf))
    return undefined
  })

  mount(router, 'POST /api/batches/:id/labels', async (request) => {
    const wanted = readInput(printLabels, request.body)
    const { labels } = await labelsOf(db, readId(request.params.id, 'batch'), wanted)
    await printPdf(PRINTER, await workers.run('labels', { labels, paper: 'roll' }))
    return { printed: labels.length }
  })

  mount(router, 'POST /api/lots/:id/label', async (request) => {
    const label = await labelOfLot(db, readId(request.params.id, 'lot'))
    await printPdf(PRINTER, await workers.run('labels', { labels: [label], paper: 'roll' }))
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
  mount(router, 'POST /api/stand-ins/:name', async (request) => {
    const name = standInNames.find((each) => each === request.params.name)
    const control = name && controls[name]
    if (!control) throw notFound('stand-in')
    const answer = await fetch(`http://${control}/`, {
      method: 'POST',
      body: JSON.stringify(readInput(playStandIn, request.body)),
      signal: AbortSignal.timeout(2000),
    }).catch(() => {
      throw new Refusal(503, 'no-stand-in', `The ${name}’s stand-in does not answer.`, { hint: 'Start the shop anew.' })
    })
    const body = (await answer.json()) as { trouble?: string }
    if (body.trouble !== undefined) throw new Refusal(400, 'bad-input', body.trouble)
    return body
  })

  return router
}
