/** The scale's stand-in, as a process of its own. */
import { fork } from 'node:child_process'
import path from 'node:path'

export interface StandIn {
  readonly env: Readonly<Record<'SCALE' | 'SCALE_CONTROL', string>>
  play(what: object): Promise<{ status: number; body: { trouble?: string } }>
  end(): void
}

export function standIn(): Promise<StandIn> {
  const child = fork(path.join(__dirname, '../../stand-ins/dist/scale.js'))
  return new Promise((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`the stand-in ended with ${code}`)))
    child.once('message', (message) => {
      const { line, control } = message as { line: number; control: number }
      resolve({
        env: { SCALE: `127.0.0.1:${line}`, SCALE_CONTROL: `127.0.0.1:${control}` },
        async play(what) {
          const answer = await fetch(`http://127.0.0.1:${control}/`, { method: 'POST', body: JSON.stringify(what) })
          return { status: answer.status, body: (await answer.json()) as { trouble?: string } }
        },
        end: () => void child.kill('SIGTERM'),
      })
    })
  })
}
