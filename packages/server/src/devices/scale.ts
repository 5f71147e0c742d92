/** A scale on a line: its rubbish told from its readings, and its silence noticed. */
import net from 'node:net'
import type { ScaleNews } from '@tessellum/contract/scale'
import { addressOf, listenToLine } from './line'

/** Without a whole line for so long it has gone silent. */
const silentMs = 1500

/** "0.412 g steady" as a reading; undefined for what is none. */
export function readLine(line: string): ScaleNews | undefined {
  if (line.trim() === 'over') return { gone: 'over' }
  const [, grams, state] = /^\s*(-?\d{1,5}\.\d{1,4}) g (steady|moving)\s*$/.exec(line) ?? []
  return grams === undefined ? undefined : { mg: Math.round(Number(grams) * 1000), steady: state === 'steady' }
}

/** @returns stops listening */
export function listenToScale(address: string, tell: (news: ScaleNews) => void): () => void {
  let silence: NodeJS.Timeout | undefined
  const stop = listenToLine(address, {
    line: (line) => tell((line === undefined ? undefined : readLine(line)) ?? { gone: 'unclear' }),
    gone: () => {
      clearTimeout(silence)
      tell({ gone: 'unreachable' })
    },
    heard: () => {
      clearTimeout(silence)
      silence = setTimeout(() => tell({ gone: 'silent' }), silentMs)
    },
  })
  return () => {
    clearTimeout(silence)
    stop()
  }
}

/** Sets what lies on it to nought. */
export function zeroScale(address: string): Promise<void> {
  return new Promise((done, failed) => {
    const socket = net.connect({ ...addressOf(address), timeout: 2000 })
    socket.on('connect', () => socket.end('zero\n', () => done()))
    socket.on('timeout', () => socket.destroy(new Error('no answer')))
    socket.on('error', failed)
  })
}
