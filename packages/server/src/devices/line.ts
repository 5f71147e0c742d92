/** A device on a line: read as long as a page listens, and begun again when it is gone. */
import net from 'node:net'

const againMs = 1500
/** More without an end of line is rubbish. */
const longest = 200

export const addressOf = (address: string): { host: string; port: number } => {
  const [host = '', port = ''] = address.split(':')
  return { host, port: Number(port) }
}

interface Listener {
  /** A line, or what is none: undefined. */
  readonly line: (line: string | undefined) => void
  readonly gone: () => void
  /** Something has come, whatever it is. */
  readonly heard?: () => void
}

/** @returns stops listening */
export function listenToLine(address: string, { line, gone, heard }: Listener): () => void {
  let socket: net.Socket | undefined
  let again: NodeJS.Timeout | undefined
  let closed = false
  const connect = () => {
    let text = ''
    const here = net.connect(addressOf(address))
    socket = here
    here.setEncoding('utf8')
    here.on('connect', () => heard?.())
    here.on('data', (chunk: string) => {
      text += chunk
      const lines = text.split('\n')
      text = lines.pop() ?? ''
      if (text.length > longest) {
        text = ''
        line(undefined)
      }
      for (const each of lines) line(each)
      if (lines.length > 0) heard?.()
    })
    here.on('error', () => undefined)
    here.on('close', () => {
      if (closed) return
      gone()
      again = setTimeout(connect, againMs)
    })
  }
  connect()
  return () => {
    closed = true
    clearTimeout(again)
    socket?.destroy()
  }
}
