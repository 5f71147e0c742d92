import { playScale, type ScaleNews } from '@tessellum/contract/scale'
import { Router } from 'express'
import type { Config } from '../config'
import { notFound, Refusal, readInput } from '../http/refusal'
import { mount } from '../http/route'
import { listenToScale, zeroScale } from './scale'

export function deviceRoutes({ SCALE, SCALE_CONTROL }: Pick<Config, 'SCALE' | 'SCALE_CONTROL'>): Router {
  const router = Router()

  mount(router, 'GET /api/scale', (_, response) => {
    response.set({ 'content-type': 'text/event-stream', 'cache-control': 'no-cache', connection: 'keep-alive' })
    response.flushHeaders()
    let last = ''
    const tell = (news: ScaleNews) => {
      const text = JSON.stringify(news)
      if (text !== last) response.write(`data: ${text}\n\n`)
      last = text
    }
    if (!SCALE) tell({ gone: 'none' })
    const stop = SCALE ? listenToScale(SCALE, tell) : () => undefined
    const beat = setInterval(() => response.write(': still here\n\n'), 25_000)
    response.on('close', () => {
      clearInterval(beat)
      stop()
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

  // Only where a stand-in stands in: it is played from the page.
  mount(router, 'GET /api/stand-ins', () => ({ scale: SCALE_CONTROL !== '' }))
  mount(router, 'POST /api/stand-ins/scale', async (request) => {
    if (!SCALE_CONTROL) throw notFound('stand-in')
    const answer = await fetch(`http://${SCALE_CONTROL}/`, {
      method: 'POST',
      body: JSON.stringify(readInput(playScale, request.body)),
      signal: AbortSignal.timeout(2000),
    })
    return answer.json()
  })

  return router
}
