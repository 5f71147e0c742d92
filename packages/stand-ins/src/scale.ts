/**
 * A counting scale that is none. Whoever connects over TCP is sent a line five times a second ("0.412 g steady", "0.398 g moving", "over") and
 * may send "zero". Another port, over HTTP, plays it: what lies on the pan, and what is wrong with it. See docs/stand-ins.md.
 */
import net, { type Socket } from 'node:net'
import { faults, Pan } from './pan'
import { control, playFault, stand } from './stand-in'

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
  if (next === undefined) return
  // A line that stops in the middle never says what it weighs.
  const sent = pan.faults.has('half-line') ? next.slice(0, 4) : `${next}\n`
  for (const socket of listeners) socket.write(sent)
}, 200)

/** `{"grams": 0.4}`, `{"fault": "rubbish", "on": true}`, `{"drop": true}`. */
function play({ grams, drop, ...asked }: Record<string, unknown>): string | undefined {
  if (grams !== undefined) {
    if (typeof grams !== 'number' || !(grams >= 0 && grams < 10_000)) return 'grams is a number from 0 to 10,000.'
    pan.put(grams)
  }
  if (drop) for (const socket of listeners) socket.destroy()
  return playFault(pan.faults, faults, asked)
}

await stand(
  { line, control: control(play, () => ({ grams: pan.grams, faults: [...pan.faults] })) },
  { line: process.env.SCALE_PORT, control: process.env.SCALE_CONTROL_PORT },
  () => clearInterval(beat),
)
