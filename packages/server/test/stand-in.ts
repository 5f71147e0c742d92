/** The stand-ins of the demo, each a process of its own. */
import { fork } from 'node:child_process'
import path from 'node:path'
import type { StandInName } from '@tessellum/contract/devices'

export interface StandIn {
  /** Where the server finds it, and where it is played. */
  readonly env: Readonly<Record<string, string>>
  readonly address: string
  play(what: object): Promise<{ status: number; body: { trouble?: string; [told: string]: unknown } }>
  end(): void
}

// Built for the soak, it lies elsewhere.
const root = process.env.TEST_ROOT ?? path.join(__dirname, '../../..')

export function standIn(name: StandInName, more: Readonly<Record<string, string>> = {}): Promise<StandIn> {
  const child = fork(path.join(root, `packages/stand-ins/dist/${name}.js`), { env: { ...process.env, ...more } })
  return new Promise((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`the ${name}'s stand-in ended with ${code}`)))
    child.once('message', (message) => {
      const { control, ...ports } = message as Record<string, number>
      const address = `127.0.0.1:${Object.values(ports)[0]}`
      const env = name.toUpperCase()
      resolve({
        env: { [env]: address, [`${env}_CONTROL`]: `127.0.0.1:${control}` },
        address,
        async play(what) {
          const answer = await fetch(`http://127.0.0.1:${control}/`, { method: 'POST', body: JSON.stringify(what) })
          return { status: answer.status, body: (await answer.json()) as { trouble?: string } }
        },
        end: () => void child.kill('SIGTERM'),
      })
    })
  })
}
