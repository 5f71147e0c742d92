/** A scale on a line: read as long as a page listens, begun again when it is gone, and its rubbish told from its readings. */
import net from 'node:net'
import type { ScaleNews } from '@tessellum/contract/scale'

/** Without a line for so long it has gone silent. */
const silentMs = 1500
const againMs = 1500
/** More without an end of line is rubbish. */
const longest = 200

/** "0.412 g steady" as a reading; undefined for what is none. */
export function readLine(line: string): ScaleNews | undefined {
  if (line.trim() === 'over') return { gone: 'over' }
  const [, grams, state] = /^\s*(-?\d{1,5}\.\d{1,4}) g (steady|moving)\s*$/.exec(line) ?? []
  return grams === undefined ? undefined : { mg: Math.round(Number(grams) * 1000), steady: state === 'steady' }
}

/** @returns stops listening */
export function listenToScale(address: string, tell: (news: ScaleNews) => void): () => void {
  const [host = '', port = ''] = address.split(':')
  let socket: net.Socket | undefined
  let again: NodeJS.Timeout | undefined
  let silence: NodeJS.Timeout | undefined
  let closed = false
  const wait = () => {
    clearTimeout(silence)
    silence = setTimeout(() => tell({ gone: 'silent' }), silentMs)
  }
  const connect = () => {
    let text = ''
    const here = net.connect({ host, port: Number(port) })
    socket = here
    here.setEncoding('utf8')
    here.on('connect', wait)
    here.on('data', (chunk: string) => {
      wait()
      text += chunk
      const lines = text.split('\n')
      text = lines.pop() ?? ''
      if (text.length > longest) {
        text = ''
        tell({ gone: 'unclear' })
      }
      for (const line of lines) tell(readLine(line) ?? { gone: 'unclear' })
    })
    here.on('error', () => undefined)
    here.on('close', () => {
      clearTimeout(silence)
      if (closed) return
      tell({ gone: 'unreachable' })
      again = setTimeout(connect, againMs)
    })
  }
  connect()
  return () => {
    closed = true
    clearTimeout(again)
    clearTimeout(silence)
    socket?.destroy()
  }
}

/** Sets what lies on it to nought. */
export function zeroScale(address: string): Promise<void> {
  const [host = '', port = ''] = address.split(':')
  return new Promise((done, failed) => {
    const socket = net.connect({ host, port: Number(port), timeout: 2000 })
    socket.on('connect', () => socket.end('zero\n', () => done()))
    socket.on('timeout', () => socket.destroy(new Error('no answer')))
    socket.on('error', failed)
  })
}
