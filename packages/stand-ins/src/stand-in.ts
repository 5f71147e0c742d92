/** What every stand-in does: it listens on loopback, is played over HTTP on a port of its own, tells where it is, and ends with whoever started it. */
import http, { type IncomingMessage } from 'node:http'
import type net from 'node:net'

/** @throws Error when more is sent than is sensible */
export async function bodyOf(request: IncomingMessage, maxBytes: number): Promise<Buffer> {
  const chunks: Buffer[] = []
  let bytes = 0
  for await (const chunk of request as AsyncIterable<Buffer>) {
    bytes += chunk.length
    if (bytes > maxBytes) throw new Error('Too much.')
    chunks.push(chunk)
  }
  return Buffer.concat(chunks)
}

/** @param play does what was asked, and returns what is wrong with it @param state told after every play, and to whoever asks */
export function control(
  play: (asked: Record<string, unknown>) => string | undefined,
  state: () => object,
): http.Server {
  return http.createServer(async (request, response) => {
    let trouble: string | undefined
    if (request.method === 'POST') {
      try {
        const asked: unknown = JSON.parse((await bodyOf(request, 4000)).toString('utf8'))
        trouble =
          typeof asked === 'object' && asked !== null ? play(asked as Record<string, unknown>) : 'Send an object.'
      } catch {
        trouble = 'Send JSON.'
      }
    }
    response.writeHead(trouble ? 400 : 200, { 'content-type': 'application/json' })
    response.end(JSON.stringify(trouble ? { trouble } : state()))
  })
}

/** Begins or ends a fault of those there are. @returns what is wrong with what was asked */
export function playFault<Fault extends string>(
  on: Set<Fault>,
  faults: readonly Fault[],
  asked: { readonly fault?: unknown; readonly on?: unknown },
): string | undefined {
  if (asked.fault === undefined) return undefined
  const fault = faults.find((each) => each === asked.fault)
  if (!fault) return `fault is one of ${faults.join(', ')}.`
  if (asked.on === false) on.delete(fault)
  else on.add(fault)
  return undefined
}

/** @param ports the environment's names for them; any free one where none is given */
export async function stand(
  servers: Readonly<Record<string, net.Server | http.Server>>,
  ports: Readonly<Record<string, string | undefined>>,
  ending: () => void = () => undefined,
): Promise<void> {
  const found: Record<string, number> = {}
  for (const [name, server] of Object.entries(servers))
    found[name] = await new Promise((done) => {
      server.listen(Number(ports[name] ?? 0), '127.0.0.1', () => done((server.address() as net.AddressInfo).port))
    })
  process.send?.(found)
  const end = () => {
    ending()
    process.exit(0)
  }
  process.on('SIGTERM', end)
  process.on('SIGINT', end)
  // Whoever started it is gone.
  process.on('disconnect', end)
}
