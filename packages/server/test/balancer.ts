import http from 'node:http'
import type { AddressInfo } from 'node:net'

/** A balancer such as stands before several servers: each request to the next of them, and to another where one does not answer. */
export async function balance(bases: readonly string[]) {
  let turn = 0
  const server = http.createServer(async (request, response) => {
    const body: Buffer[] = []
    for await (const part of request) body.push(part as Buffer)
    const first = turn++
    for (let tries = 0; tries < bases.length; tries++) {
      const base = bases[(first + tries) % bases.length] as string
      const sent = await new Promise<http.IncomingMessage | undefined>((done) => {
        const { method = 'GET', url = '/', headers } = request
        const ahead = http.request(`${base}${url}`, { method, headers }, done)
        ahead.on('error', () => done(undefined))
        ahead.end(Buffer.concat(body))
      })
      if (!sent) continue
      const parts: Buffer[] = []
      try {
        for await (const part of sent) parts.push(part as Buffer)
      } catch {
        continue
      }
      response.writeHead(sent.statusCode ?? 502, sent.headers).end(Buffer.concat(parts))
      return
    }
    response.writeHead(502).end()
  })
  // A caller that is busy may write on a connection as it is closed for idleness; a balancer keeps them open longer than its callers.
  server.keepAliveTimeout = 0
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', () => done()))
  return {
    base: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () => {
      server.close()
      server.closeAllConnections()
    },
  }
}
