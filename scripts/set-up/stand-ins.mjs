import { fork } from 'node:child_process'
import path from 'node:path'
import { root } from './places.mjs'

/**
 * Starts the stand-ins of the demo, each a process of its own that ends when we do.
 * @returns {Promise<{env: Record<string, string>, stop: () => void}>} where the server finds them
 */
export function startStandIns() {
  return new Promise((resolve, reject) => {
    const scale = fork(path.join(root, 'packages/stand-ins/dist/scale.js'), { cwd: root })
    scale.once('exit', (code) => reject(new Error(`The scale's stand-in ended with ${code}.`)))
    scale.once('message', ({ line, control }) =>
      resolve({
        env: { SCALE: `127.0.0.1:${line}`, SCALE_CONTROL: `127.0.0.1:${control}` },
        stop: () => scale.kill('SIGTERM'),
      }),
    )
  })
}
