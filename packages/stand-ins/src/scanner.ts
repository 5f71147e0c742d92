/**
 * A hand scanner that is none: whoever connects over TCP is sent each code that is scanned, on a line of its own. Played over HTTP on another
 * port. See docs/stand-ins.md.
 */
import net, { type Socket } from 'node:net'
import { control, playFault, stand } from './stand-in'

type Fault = 'garbled' | 'twice'
const on = new Set<Fault>()
const listeners = new Set<Socket>()
let last = ''

const line = net.createServer((socket) => {
  listeners.add(socket)
  socket.on('data', () => undefined)
  socket.on('close', () => listeners.delete(socket))
  socket.on('error', () => socket.destroy())
})

/** `{"scan": "L12"}`, `{"fault": "garbled", "on": true}`, `{"drop": true}`. */
function play({ scan, drop, ...asked }: Record<string, unknown>): string | undefined {
  if (drop) for (const socket of listeners) socket.destroy()
  if (scan !== undefined) {
    if (typeof scan !== 'string' || scan === '' || scan.length > 200) return 'scan is a code of up to 200 letters.'
    last = scan
    // A worn label: every other letter is read as another.
    const read = on.has('garbled') ? [...scan].map((letter, i) => (i % 2 ? '\u00a4' : letter)).join('') : scan
    for (const socket of listeners) socket.write(on.has('twice') ? `${read}\n${read}\n` : `${read}\n`)
  }
  return playFault(on, ['garbled', 'twice'], asked)
}

await stand(
  { line, control: control(play, () => ({ last, faults: [...on] })) },
  { line: process.env.SCANNER_PORT, control: process.env.SCANNER_CONTROL_PORT },
)
