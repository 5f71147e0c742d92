/** What there is to watch, in Prometheus' format: on a port of its own, since it is for machines of the house and not for the shop's people. */
import { createServer } from 'node:http'
import type { Response } from 'express'
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client'

const registry = new Registry()
/** The process: its memory, its processor time, and how far the event loop lags. */
collectDefaultMetrics({ register: registry })

const requestSeconds = new Histogram({
  name: 'tessellum_request_seconds',
  help: 'How long requests took, by route and status',
  labelNames: ['route', 'status'] as const,
  buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10, 60],
  registers: [registry],
})

/** Notes how long an answer takes, once it has been sent. */
export function timeAnswer(route: string, response: Response): void {
  const end = requestSeconds.startTimer({ route })
  response.once('finish', () => end({ status: String(response.statusCode) }))
}

/** A figure that is read whenever it is asked for. */
export function watch(name: string, help: string, read: () => number): void {
  new Gauge({
    name: `tessellum_${name}`,
    help,
    registers: [registry],
    collect() {
      this.set(read())
    },
  })
}

/** @param port on this machine only; 0 for none */
export function serveMetrics(port: number): () => void {
  if (port === 0) return () => undefined
  const server = createServer(async (request, response) => {
    if (request.url !== '/metrics') {
      response.writeHead(404).end()
      return
    }
    response.writeHead(200, { 'content-type': registry.contentType }).end(await registry.metrics())
  })
  server.listen(port, '127.0.0.1')
  return () => void server.close()
}
