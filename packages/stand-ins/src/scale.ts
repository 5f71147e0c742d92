/**
 * A counting scale that is none. Whoever connects over TCP is sent a line five times a second ("0.412 g steady", "0.398 g moving", "over") and
 * may send "zero". Another port, over HTTP, plays it: what lies on the pan, and what is wrong with it. See docs/stand-ins.md.
 */
import http from 'node:http'
import net, { type Socket } from 'node:net'
import { type Fault, faults, Pan } from './pan'

const pan = new Pan()
const listeners = new Set<Socket>()

const line = net.createServer((socket) => {
  listeners.add(socket)
  socket.setEncoding('utf8')
  let typed = ''
  socket.on('data', (text: string) => {
    typed = (typed + text).slice(-200)
    const lines = typed.split('\n')
    typed = lines.pop() ?? ''
    for (const each of lines) if (each.trim() === 'zero') pan.zero()
  })
  socket.on('close', () => listeners.delete(socket))
  socket.on('error', () => socket.destroy())
})
const beat = setInterval(() => {
  const next = pan.next(Math.random)
  if (next !== undefined) for (const socket of listeners) socket.write(`${next}\n`)
}, 200)

const control = http.createServer((request, response) => {
  const chunks: Buffer[] = []
  request.on('data', (chunk: Buffer) => chunks.push(chunk))
  request.on('end', () => {
    const trouble = request.method === 'POST' ? play(Buffer.concat(chunks).toString('utf8').slice(0, 1000)) : undefined
    response.writeHead(trouble ? 400 : 200, { 'content-type': 'application/json' })
    response.end(JSON.stringify(trouble ? { trouble } : { grams: pan.grams, faults: [...pan.faults] }))
  })
})

/** `{"grams": 0.4}`, `{"fault": "rubbish", "on": true}`, `{"drop": true}`. @returns what is wrong with it */
function play(text: string): string | undefined {
  let asked: { grams?: unknown; fault?: unknown; on?: unknown; drop?: unknown }
  try {
    asked = JSON.parse(text)
  } catch {
    return 'Send JSON.'
  }
  if (asked.grams !== undefined) {
    if (typeof asked.grams !== 'number' || !(asked.grams >= 0 && asked.grams < 10_000))
      return 'grams is a number from 0 to 10,000.'
    pan.put(asked.grams)
  }
  if (asked.fault !== undefined) {
    const fault = faults.find((each) => each === asked.fault) as Fault | undefined
    if (!fault) return `fault is one of ${faults.join(', ')}.`
    if (asked.on === false) pan.faults.delete(fault)
    else pan.faults.add(fault)
  }
  if (asked.drop) for (const socket of listeners) socket.destroy()
  return undefined
}

const listen = (server: net.Server, port: string | undefined) =>
  new Promise<number>((done) => {
    server.listen(Number(port ?? 0), '127.0.0.1', () => done((server.address() as net.AddressInfo).port))
  })
const ports = {
  line: await listen(line, process.env.SCALE_PORT),
  control: await listen(control, process.env.SCALE_CONTROL_PORT),
}
process.send?.(ports)

function end(): void {
  clearInterval(beat)
  for (const socket of listeners) socket.destroy()
  line.close()
  control.close()
  control.closeAllConnections()
  process.exit(0)
}
process.on('SIGTERM', end)
process.on('SIGINT', end)
// Whoever started it is gone.
process.on('disconnect', end)
